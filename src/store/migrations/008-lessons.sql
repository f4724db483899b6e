-- Every statement may be run twice: a migration that was cut off goes on where it stopped.

-- What was done to a cold frame to bring it inside its limits.
ALTER TABLE entry MODIFY COLUMN kind ENUM('round', 'reading', 'tick', 'note', 'change', 'corrected') NOT NULL;

ALTER TABLE entry ADD CONSTRAINT IF NOT EXISTS entry_corrected CHECK (kind <> 'corrected' OR more IS NOT NULL);

-- What a shop learned, entry by entry, for good: a later one leaves out what does not count.
CREATE TABLE IF NOT EXISTS lesson (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  shop_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  kind ENUM('coupon', 'frame', 'left out', 'taken back', 'begun anew') NOT NULL,
  made_at DATETIME(3) NOT NULL,
  received_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  doc JSON NOT NULL,
  KEY by_shop (shop_id, made_at, id),
  CONSTRAINT lesson_shop FOREIGN KEY (shop_id) REFERENCES shop (id)
) ENGINE = InnoDB;

CREATE TRIGGER IF NOT EXISTS lesson_no_update BEFORE UPDATE ON lesson FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'What was learned is kept as it is';

CREATE TRIGGER IF NOT EXISTS lesson_no_delete BEFORE DELETE ON lesson FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'What was learned is kept for good';
