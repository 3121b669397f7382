import { errorCode } from '../base/errorCode';
import { Fault } from '../base/fault';

/**
 * What an error of the database means where two at once, odd values or a full disk are the reason and
 * not a mistake of Rezzik's (PostgreSQL, appendix A: error codes); null for every other error.
 */
export function faultOf(error: unknown): Fault | null {
  if (!(error instanceof Error) || error.name !== 'PostgresError') return null;
  switch (errorCode(error)) {
    case '23503': // foreign_key_violation
      return new Fault(404, 'gone-meanwhile', 'What this is for was deleted at the same moment.');
    case '23505': // unique_violation
    case '40001': // serialization_failure
    case '40P01': // deadlock_detected
      return new Fault(
        409,
        'meanwhile',
        'Something else changed the same at the same moment. Nothing was changed by this; try again.',
      );
    case '22003': // numeric_value_out_of_range
    case '22008': // datetime_field_overflow
    case '22021': // character_not_in_repertoire
    case '22P05': // untranslatable_character
      return new Fault(400, 'does-not-fit', 'A number, a date or a character cannot be stored.');
    case '53100': // disk_full
      return new Fault(
        507,
        'disk-full',
        'The disk of the database is full. Nothing was changed; make room, and try again.',
      );
    default:
      return null;
  }
}
