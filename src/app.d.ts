declare global {
  namespace App {
    interface Locals {
      /** Who is signed in, where people sign in. */
      person?: string;
    }
    interface Error {
      message: string;
      /** The job that cannot be opened: its docket can be downloaded, and it can be removed. */
      job?: string;
    }
  }
}
export {};
