-- Every change has a number of its own, taken from one counter that is locked last in its transaction: who reads on from a number misses nothing that
-- was still being written. Which device sent a command is kept with it, and how its hash was made.
create table change_counter (
    id   boolean primary key default true check (id),
    last bigint  not null
);
alter table command
    add column change    bigint unique,
    add column hash_form smallint not null default 0,
    add column device    uuid;
alter table command disable trigger command_is_a_fact;
update command c set change = n.nth from (select id, row_number() over (order by received_at, id) as nth from command) n where n.id = c.id;
alter table command enable trigger command_is_a_fact;
alter table command alter column change set not null;
insert into change_counter (last) select count(*) from command;
