-- A conclusion is kept as it was come to, though the server comes to another one: that stands beside it as a question. A look at a character
-- that isn't known here yet is kept too, and read as soon as it is.
alter table determination add column question jsonb;
alter table observation add column is_known boolean not null default true;
