import { finishPlanOf } from '../../core/finish/finishPlan';
import { writeText } from '../text';
import type { OutputMaker } from './outputMaker';

export const finishing: OutputMaker<'finishing'> = {
  async write({ docket, list, plan }, _, parts, job) {
    const finish = finishPlanOf({ list, plan: plan!, scheme: docket.scheme }, docket.title);
    return writeText(`${JSON.stringify(finish, null, 2)}\n`, parts, job);
  },
};
