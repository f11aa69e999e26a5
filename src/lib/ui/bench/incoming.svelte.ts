import type { IntakeState } from '../../wire/told';
import { inOrderTaken } from '../../core/pages/pictureSet';
import { api, Refused, upload } from '../api';

export interface Upload {
  name: string;
  share: number;
}

/** What is asked of the server of files on their way. */
export type FilesServer = Pick<typeof api, 'status' | 'dismiss' | 'tryAgain' | 'openWith'> & {
  upload: typeof upload;
};

/** How often it is asked for a file that is waited for. */
const ASK_MS = 350;

/** Files on their way into a job. */
export class Incoming {
  uploads = $state.raw<Upload[]>([]);
  intakes = $state.raw<IntakeState[]>([]);

  constructor(
    /** The job. */
    private readonly id: string,
    /** Told when something moved that the server knows more of. */
    private readonly onChange: () => void,
    private readonly server: FilesServer = { ...api, upload },
  ) {}

  /** What the server tells of files; those that it refused stay until they are dismissed. */
  told(intakes: readonly IntakeState[]): void {
    const local = this.intakes.filter(({ id }) => id.startsWith('local-'));
    this.intakes = [...intakes, ...local];
  }

  /** A file is still being read. */
  get isBusy(): boolean {
    return this.intakes.some(({ state }) => state !== 'failed');
  }

  async takeIn(files: Iterable<File>): Promise<void> {
    for (const file of inOrderTaken([...files], ({ name }) => name)) {
      const mine: Upload = { name: file.name, share: 0 };
      this.uploads = [...this.uploads, mine];
      try {
        await this.server.upload(this.id, file, { at: 'end' }, (share) => {
          mine.share = share;
          this.uploads = [...this.uploads];
        });
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        this.intakes = [
          ...this.intakes,
          {
            id: `local-${Math.random()}`,
            name: file.name,
            state: 'failed',
            done: 0,
            total: 0,
            trouble: error.trouble,
          },
        ];
      }
      this.uploads = this.uploads.filter((each) => each !== mine);
      this.onChange();
    }
  }

  /** Uploads a file that is laid on pages without becoming a page itself. Returns its SHA-256. Rejects with Refused. */
  async bringGraphic(file: File): Promise<string> {
    const { id, sha256 } = await this.server.upload(this.id, file, { at: 'aside' }, () => undefined);
    for (;;) {
      const { intakes } = await this.server.status(this.id);
      const mine = intakes.find((intake) => intake.id === id);
      if (!mine) break;
      if (mine.state === 'failed') {
        await this.server.dismiss(id);
        throw new Refused(422, mine.trouble ?? { code: 'damaged' });
      }
      await new Promise((soon) => setTimeout(soon, ASK_MS));
    }
    this.onChange();
    return sha256;
  }

  /** Has a file surveyed again whose survey failed. */
  async tryIntake(intake: IntakeState): Promise<void> {
    await this.server.tryAgain('intake', intake.id).catch(() => undefined);
    this.onChange();
  }

  /** Opens a file that needs a password. */
  async openWith(intake: IntakeState, password: string): Promise<void> {
    await this.server.openWith(intake.id, password).catch(() => undefined);
    this.onChange();
  }

  dismiss(intake: IntakeState): void {
    this.intakes = this.intakes.filter((each) => each !== intake);
    if (!intake.id.startsWith('local-')) void this.server.dismiss(intake.id);
  }
}
