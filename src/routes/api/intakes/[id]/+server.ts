import { dismissIntake } from '$lib/server/intakes';
import { answer } from '$lib/server/problem';

export const DELETE = ({ params }) => answer(() => dismissIntake(params.id));
