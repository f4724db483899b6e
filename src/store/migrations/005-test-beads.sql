-- Beads on scrap with the settings that they were laid with: never changed, never taken away.
CREATE TABLE IF NOT EXISTS test_bead (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  made_at DATETIME(3) NOT NULL,
  doc JSON NOT NULL,
  KEY by_time (made_at, id)
) ENGINE = InnoDB;

CREATE TRIGGER IF NOT EXISTS test_bead_no_update BEFORE UPDATE ON test_bead FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Test beads are kept as they are: log a new one';

CREATE TRIGGER IF NOT EXISTS test_bead_no_delete BEFORE DELETE ON test_bead FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Test beads are kept for good';
