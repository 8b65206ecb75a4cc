-- What was erased on request: its id alone stays, and whatever names it is answered "erased". One function alone passes what keeps facts as
-- they are.
create table erased (
    id        uuid        primary key,
    kind      text        not null,
    erased_at timestamptz not null default now()
);

create or replace function refuse_change() returns trigger language plpgsql as $$
begin
    if current_setting('garten.erasing', true) = 'on' then
        return case when tg_op = 'DELETE' then old else new end;
    end if;
    raise exception 'rows of % are appended, never changed', tg_table_name using errcode = 'restrict_violation';
end $$;

-- Takes a person's name, a plant with all that was recorded of it, or a single record, visit or look out of everything; answers with the
-- plant that lists have to show anew, if any. What isn't here is noted too: a copy of the database may hold it.
create function erase(subject uuid) returns uuid language plpgsql as $$
declare
    of_plant uuid;
begin
    if exists (select from erased where id = subject and kind <> 'unknown') then
        return null;
    end if;
    perform set_config('garten.erasing', 'on', true);
    if exists (select from person where id = subject) then
        update person set name = '(erased)' where id = subject;
        insert into erased (id, kind) values (subject, 'person') on conflict (id) do update set kind = excluded.kind;
    elsif exists (select from plant where id = subject) then
        insert into erased (id, kind)
        select subject, 'plant'
        union all select id, 'occurrence' from occurrence where plant_id = subject
        union all select id, 'determination' from determination where plant_id = subject
        union all select id, 'observation' from observation where plant_id = subject
        union all select id, 'visit' from plant_visit where plant_id = subject
        on conflict (id) do update set kind = excluded.kind;
        delete from determination_name where number in (select number from determination where plant_id = subject);
        delete from plant_now where plant_id = subject;
        delete from plant_open where plant_id = subject;
        delete from determination where plant_id = subject;
        delete from observation where plant_id = subject;
        delete from plant_visit where plant_id = subject;
        delete from occurrence where plant_id = subject;
        delete from plant where id = subject;
    elsif exists (select from determination where id = subject) then
        select plant_id into of_plant from determination where id = subject;
        insert into erased (id, kind) values (subject, 'determination') on conflict (id) do update set kind = excluded.kind;
        delete from determination_name where number in (select number from determination where id = subject);
        -- The day on which the plant was seen stays where another record is of it.
        delete from determination where id = subject;
        delete from occurrence o where o.plant_id = of_plant and not exists (select from determination d where d.occurrence_id = o.id);
    elsif exists (select from plant_visit where id = subject) then
        select plant_id into of_plant from plant_visit where id = subject;
        insert into erased (id, kind) values (subject, 'visit') on conflict (id) do update set kind = excluded.kind;
        delete from plant_visit where id = subject;
    elsif exists (select from observation where id = subject) then
        select plant_id into of_plant from observation where id = subject;
        insert into erased (id, kind) values (subject, 'observation') on conflict (id) do update set kind = excluded.kind;
        delete from observation where id = subject;
    else
        insert into erased (id, kind) values (subject, 'unknown') on conflict do nothing;
    end if;
    delete from record_name r where not exists (select from determination_name n where n.name = r.name);
    if of_plant is not null then
        perform refresh_plant_now(array[of_plant]);
    end if;
    perform set_config('garten.erasing', 'off', true);
    return of_plant;
end $$;
