-- The vocabulary that a reading was made by; nothing for readings of before this was noted.
alter table key_reading add column vocabulary text not null default '';
