import { chromium } from 'playwright-core';
const [,, path, out, w='1280', h='800', ...acts] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: +w, height: +h } });
p.on('console', m => { if (m.type()==='error') console.log('console', m.text().slice(0,300)); });
p.on('pageerror', e => console.log('pageerror', e.message));
await p.goto(`http://localhost:5999${path}`);
await p.waitForTimeout(2500);
for (const a of acts) {
  const [k, ...v] = a.split('='); const val = v.join('=');
  if (k==='key') await p.keyboard.press(val);
  if (k==='click') await p.locator(val).first().click();
  if (k==='text') await p.getByText(val, {exact:true}).first().click();
  if (k==='wait') await p.waitForTimeout(+val);
  if (k==='type') await p.keyboard.type(val);
  if (k==='scroll') await p.locator('[aria-label^="Music of"]').evaluate((e, y) => e.scrollTo(0, +y), val);
  if (k==='url') console.log(p.url());
  if (k==='eval') console.log(await p.evaluate(val));
}
await p.screenshot({ path: out });
console.log(p.url());
await b.close();
