-- Every statement may be run twice: a migration that was cut off goes on where it stopped.

-- A shop owns its jobs, instruments and test beads. What was there before belongs to the first one.
CREATE TABLE IF NOT EXISTS shop (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
) ENGINE = InnoDB;

INSERT IGNORE INTO shop (id, name) VALUES ('00000000-0000-4000-8000-000000000001', 'This shop');

-- A job that is put away is hidden and kept. The summary is worked out when the list is read, where it is behind the record.
ALTER TABLE job
  ADD COLUMN IF NOT EXISTS shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '00000000-0000-4000-8000-000000000001',
  ADD COLUMN IF NOT EXISTS away_at DATETIME(3) NULL,
  ADD COLUMN IF NOT EXISTS is_away BOOLEAN AS (away_at IS NOT NULL) PERSISTENT,
  ADD COLUMN IF NOT EXISTS summary_seq INT UNSIGNED NULL,
  ADD KEY IF NOT EXISTS by_shop (shop_id, is_away, changed_at, id);

-- Instruments without a shop lie on every shelf.
ALTER TABLE instrument ADD COLUMN IF NOT EXISTS shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE instrument ADD KEY IF NOT EXISTS by_shop (shop_id);

-- What a shop put away: hidden from its shelf, kept for the readings that were made with it.
CREATE TABLE IF NOT EXISTS instrument_away (
  shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  instrument_id VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  away_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (shop_id, instrument_id),
  CONSTRAINT instrument_away_instrument FOREIGN KEY (instrument_id) REFERENCES instrument (id)
) ENGINE = InnoDB;

ALTER TABLE test_bead
  ADD COLUMN IF NOT EXISTS shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '00000000-0000-4000-8000-000000000001',
  ADD KEY IF NOT EXISTS by_shop (shop_id, made_at, id);

-- Who may come in. One who left is kept: entries carry the name.
CREATE TABLE IF NOT EXISTS person (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(48) NOT NULL,
  role ENUM('owner', 'welder', 'looks') NOT NULL,
  password VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  left_at DATETIME(3) NULL,
  UNIQUE KEY by_name (shop_id, name),
  CONSTRAINT person_shop FOREIGN KEY (shop_id) REFERENCES shop (id)
) ENGINE = InnoDB;

-- Codes and tokens are kept as their SHA-256 alone. A code is good once.
CREATE TABLE IF NOT EXISTS invitation (
  code BINARY(32) NOT NULL PRIMARY KEY,
  person_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  until_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  CONSTRAINT invitation_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE = InnoDB;

-- A device that is signed in, until it signs out, is withdrawn, or lies unused for long.
CREATE TABLE IF NOT EXISTS device (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  token BINARY(32) NOT NULL,
  person_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  seen_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  until_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  UNIQUE KEY by_token (token),
  KEY by_person (person_id),
  CONSTRAINT device_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE = InnoDB;

-- Tries that failed, to slow down who guesses.
CREATE TABLE IF NOT EXISTS failed_try (
  subject BINARY(32) NOT NULL,
  tried_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  KEY by_subject (subject, tried_at),
  KEY by_time (tried_at)
) ENGINE = InnoDB;

-- Who came in, who was let in, who was sent away: for good.
CREATE TABLE IF NOT EXISTS audit (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  by_name VARCHAR(60) NOT NULL,
  what VARCHAR(40) NOT NULL,
  about VARCHAR(200) NOT NULL,
  KEY by_shop (shop_id, id)
) ENGINE = InnoDB;

CREATE TRIGGER IF NOT EXISTS audit_no_update BEFORE UPDATE ON audit FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The audit is kept as it is';

CREATE TRIGGER IF NOT EXISTS audit_no_delete BEFORE DELETE ON audit FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The audit is kept for good';

-- What was done for the whole installation, such as the last backup.
CREATE TABLE IF NOT EXISTS upkeep (
  what VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  done_at DATETIME(3) NOT NULL
) ENGINE = InnoDB;

INSERT IGNORE INTO upkeep (what, done_at) VALUES ('begun', UTC_TIMESTAMP(3));
