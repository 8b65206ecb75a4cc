-- What stood for a name when it was given: checks, grade, look-alikes, as they were worked out then; null where it wasn't confirmed.
alter table determination add column confirmation jsonb;
