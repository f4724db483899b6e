-- Predictions that were worked out, by what they depend on and by the model that made them: worked out anew when they are missing.
CREATE TABLE IF NOT EXISTS prediction (
  depends BINARY(32) NOT NULL,
  model BINARY(32) NOT NULL,
  doc JSON NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (depends, model),
  KEY by_age (made_at)
) ENGINE = InnoDB;
