import type { Outcome } from '../core/finish/proof';
import type { OutputState } from '../wire/told';

/** How a job stands with its proofs. */
export interface ProofStanding {
  /** The newest proof: of the job as it is now, if there is one. */
  last?: { output: OutputState; outcome: Outcome } | undefined;
  /** One that is being made. */
  coming?: OutputState | undefined;
  /** The newest attempt, if nothing came of it. */
  failed?: OutputState | undefined;
}

/** How a job stands with its proofs, by its outputs, the newest first. */
export function proofStanding(outputs: readonly OutputState[]): ProofStanding {
  const made = outputs.flatMap((output) => {
    const outcome = output.state === 'done' ? output.files[0]?.proof : undefined;
    return outcome ? [{ output, outcome }] : [];
  });
  const [newest] = outputs.filter(({ spec }) => spec.kind === 'proof');
  return {
    last: made.find(({ output }) => output.upToDate) ?? made[0],
    coming: outputs.find(
      ({ spec, state }) => spec.kind === 'proof' && (state === 'waiting' || state === 'working'),
    ),
    failed: newest?.state === 'failed' ? newest : undefined,
  };
}
