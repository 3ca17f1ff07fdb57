declare global {
  namespace App {
    interface Error {
      message: string;
      /** The piece whose music cannot be read. */
      pieceId?: string;
    }
    interface Locals {
      /** Work for this request was stopped at a limit: nothing went wrong with the server. */
      wasStopped?: boolean;
    }
  }
}

export {};
