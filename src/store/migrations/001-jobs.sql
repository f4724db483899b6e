-- Every statement may be run twice: a migration that was cut off goes on where it stopped.

-- Instruments are never changed: a recalibrated one is a new row, so old readings keep what was known when they were made.
CREATE TABLE IF NOT EXISTS instrument (
  id VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  resolution_mm DOUBLE NOT NULL,
  handling_mm DOUBLE NOT NULL,
  zero_mm DOUBLE NOT NULL,
  scale_mm_per_m DOUBLE NOT NULL,
  added_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
) ENGINE = InnoDB;

-- One row a job: the plan as it stands, its version, and what the list of jobs shows.
CREATE TABLE IF NOT EXISTS job (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  version INT UNSIGNED NOT NULL,
  entry_seq INT UNSIGNED NOT NULL DEFAULT 0,
  plan JSON NOT NULL,
  length_mm DOUBLE NOT NULL,
  width_mm DOUBLE NOT NULL,
  stage VARCHAR(10) NOT NULL,
  verdict VARCHAR(20) NOT NULL,
  verdict_about VARCHAR(80) NOT NULL,
  created_at DATETIME(3) NOT NULL,
  changed_at DATETIME(3) NOT NULL,
  KEY by_change (changed_at, id)
) ENGINE = InnoDB;

-- Every plan that was ever saved.
CREATE TABLE IF NOT EXISTS job_plan (
  job_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT UNSIGNED NOT NULL,
  plan JSON NOT NULL,
  saved_at DATETIME(3) NOT NULL,
  origin VARCHAR(60) NOT NULL,
  PRIMARY KEY (job_id, version),
  CONSTRAINT job_plan_job FOREIGN KEY (job_id) REFERENCES job (id)
) ENGINE = InnoDB;

-- The record of the build: rounds, readings, ticks, notes and plan changes, in order, for good.
CREATE TABLE IF NOT EXISTS entry (
  job_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  seq INT UNSIGNED NOT NULL,
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  kind ENUM('round', 'reading', 'tick', 'note', 'change') NOT NULL,
  made_at DATETIME(3) NOT NULL,
  received_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  origin VARCHAR(60) NOT NULL,
  gate VARCHAR(10) NULL,
  method VARCHAR(10) NULL,
  round_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  instrument_id VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  what VARCHAR(4) NULL,
  value_mm DOUBLE NULL,
  value_text VARCHAR(60) NULL,
  value_unit ENUM('mm', 'in') NULL,
  step VARCHAR(80) NULL,
  done BOOLEAN NULL,
  note VARCHAR(2000) NULL,
  version INT UNSIGNED NULL,
  changes JSON NULL,
  PRIMARY KEY (job_id, seq),
  UNIQUE KEY by_id (id),
  CONSTRAINT entry_job FOREIGN KEY (job_id) REFERENCES job (id),
  CONSTRAINT entry_instrument FOREIGN KEY (instrument_id) REFERENCES instrument (id),
  CONSTRAINT entry_round CHECK (kind <> 'round' OR (gate IS NOT NULL AND method IS NOT NULL)),
  CONSTRAINT entry_reading CHECK (
    kind <> 'reading'
    OR (round_id IS NOT NULL AND instrument_id IS NOT NULL AND what IS NOT NULL
      AND (value_mm IS NULL) = (value_text IS NULL) AND (value_mm IS NULL) = (value_unit IS NULL))
  ),
  CONSTRAINT entry_tick CHECK (kind <> 'tick' OR (step IS NOT NULL AND done IS NOT NULL)),
  CONSTRAINT entry_note CHECK (kind <> 'note' OR note IS NOT NULL),
  CONSTRAINT entry_change CHECK (kind <> 'change' OR (version IS NOT NULL AND changes IS NOT NULL))
) ENGINE = InnoDB;

CREATE TRIGGER IF NOT EXISTS entry_no_update BEFORE UPDATE ON entry FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Entries are kept as they are: add a new one';

CREATE TRIGGER IF NOT EXISTS entry_no_delete BEFORE DELETE ON entry FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Entries are kept for good';

CREATE TRIGGER IF NOT EXISTS job_plan_no_update BEFORE UPDATE ON job_plan FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Saved plans are kept as they are';

CREATE TRIGGER IF NOT EXISTS job_plan_no_delete BEFORE DELETE ON job_plan FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Saved plans are kept for good';

CREATE TRIGGER IF NOT EXISTS instrument_no_update BEFORE UPDATE ON instrument FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Instruments are kept as they are: add a new one';
