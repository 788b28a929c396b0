-- While a tool takes two secrets side by side: the one that shells may still have, to test what they would meet.
alter table tool_connection add column key_before text, add column secret_before bytea;
