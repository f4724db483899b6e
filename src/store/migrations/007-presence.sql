-- Every statement may be run twice: a migration that was cut off goes on where it stopped.

-- Who has which job open, at which stage: of a page that is heard of no more, it is forgotten.
CREATE TABLE IF NOT EXISTS presence (
  page CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  job_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  who VARCHAR(60) NOT NULL,
  stage VARCHAR(10) NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  KEY by_job (job_id, seen_at),
  KEY by_time (seen_at)
) ENGINE = InnoDB;
