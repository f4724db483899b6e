-- Pieces of a frame drawn freely have names of up to six characters.
ALTER TABLE entry MODIFY what VARCHAR(12) NULL;
