import type { Evaluation } from '../api/client';

/** Whether the carriage goes on past something of which nobody has said how near it is. */
export const smearUnknown = ({ schools }: Pick<Evaluation, 'schools'>): boolean =>
  schools.some((one) => one.school === 'continuous' && one.smear_px === null);
