-- A place can be changed (its version says so), and laid to rest: then it is no longer offered where one chooses a place.
alter table place add column at_rest boolean not null default false;
