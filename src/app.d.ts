declare global {
  namespace App {
    interface Error {
      message: string;
      /** The piece whose music cannot be read. */
      pieceId?: string;
    }
  }
}

export {};
