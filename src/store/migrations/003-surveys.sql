-- Mixed surveys, averaged readings, slopes and angles; instruments with what tests found of them.
ALTER TABLE entry MODIFY what VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE entry ADD COLUMN IF NOT EXISTS more JSON NULL;

ALTER TABLE instrument ADD COLUMN IF NOT EXISTS more JSON NULL;
