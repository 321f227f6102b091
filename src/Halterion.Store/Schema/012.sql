-- The lead that a screen or a phone was paired from: it follows that one.
ALTER TABLE device ADD COLUMN session_id TEXT;
