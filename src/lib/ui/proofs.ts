import type { Finding } from '../core/checks';
import type { Stage } from '../core/checks/finding';
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

/** How many findings a stage has, and whether any says stop; what a proof of the job as it is found counts as findings do. */
export function countsOf(
  stage: Stage,
  findings: readonly Finding[],
  outputs: readonly OutputState[],
): { count: number; stop: boolean } {
  const own = findings.filter((finding) => finding.stage === stage && finding.level !== 'note');
  const { last } = proofStanding(outputs);
  const proof = stage === 'dummy' && last?.output.upToDate ? last.outcome : undefined;
  return {
    count: own.length + (proof ? proof.wrong + proof.weak : 0),
    stop: own.some(({ level }) => level === 'stop') || (!!proof && !proof.holds),
  };
}
