/** @param iso `2026-11-24T08:00:00.000Z`. @returns what DATETIME(3) takes, UTC. */
export const toSqlTime = (iso: string): string => iso.slice(0, 23).replace("T", " ");

/** SQL that gives a DATETIME(3) column back as ISO 8601 with milliseconds. */
export const isoTime = (column: string): string =>
  `CONCAT(LEFT(DATE_FORMAT(${column}, '%Y-%m-%dT%H:%i:%s.%f'), 23), 'Z')`;
