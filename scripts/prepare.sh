# What ./demo and ./verify share: packages and the built application, each made only when it is missing or out of date.

install_packages() {
  local wanted
  wanted="$(cat package.json package-lock.json | sha256sum | cut -d' ' -f1)"
  if [ "$(cat node_modules/.keypath-installed 2>/dev/null)" != "$wanted" ]; then
    echo "Installing packages (once; the database driver is compiled, which takes a minute or two) …"
    npm ci --no-audit --no-fund --loglevel=error
    echo "$wanted" > node_modules/.keypath-installed
  fi
}

# Everything that goes into the build, as one sum.
sources_sum() {
  find src static svelte.config.js vite.config.ts vite.worker.config.ts scripts/separateWasm.ts scripts/build-home.ts tsconfig.json package-lock.json -type f -not -name '*.test.ts' -print0 |
    sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1
}

build_application() {
  local wanted
  wanted="$(sources_sum)"
  if [ "$(cat build/.keypath-built 2>/dev/null)" != "$wanted" ]; then
    echo "Building …"
    npm run -s build > build.log 2>&1 || { cat build.log; return 1; }
    echo "$wanted" > build/.keypath-built
  fi
}

# Debian's Chromium for the end-to-end tests: its shell without windows, which takes a third less of the machine, and where
# that is not to be had the browser. CHROMIUM names another one.
install_chromium() {
  if [ -n "${CHROMIUM:-}" ]; then [ -x "$CHROMIUM" ]; return; fi
  if [ -x /usr/bin/chromium-headless-shell ]; then return 0; fi
  echo "Installing Chromium for the end-to-end tests …"
  local as_root=""
  if [ "$(id -u)" -ne 0 ]; then
    if ! sudo -n true 2>/dev/null; then
      echo "Installing it needs root: run 'apt-get install chromium' once, or set CHROMIUM to a browser."
      return 1
    fi
    as_root="sudo -n"
  fi
  $as_root apt-get update -qq
  $as_root apt-get install -y -qq chromium-headless-shell > /dev/null || [ -x /usr/bin/chromium ] \
    || $as_root apt-get install -y -qq chromium > /dev/null
}
