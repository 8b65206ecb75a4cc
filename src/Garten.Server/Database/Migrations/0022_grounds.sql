-- The ground of a place: boundary, parts, ways in, hazards, leave to record. It can be changed; the version says so.
create table place_ground (
    place_id uuid    primary key references place,
    ground   jsonb   not null,
    version  integer not null default 1
);

-- What maps are drawn on: features with a kind (land, relief, stream, water, wood, sand, path, name), as GeoJSON.
create table base_map (
    id       text        primary key,
    features jsonb       not null,
    added_at timestamptz not null default now()
);

create index list_line_positions on list_line (visit_id) where latitude is not null;

-- Names of lists stand among the names of records.
create index list_line_taxon on list_line (taxon);
insert into record_name select distinct taxon from list_line where taxon <> '' on conflict do nothing;

create or replace function erase(subject uuid) returns uuid language plpgsql as $$
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
        -- What lists said of it goes too; a line that corrected one of these stands by itself.
        insert into erased (id, kind) select id, 'line' from list_line where plant_id = subject on conflict (id) do update set kind = excluded.kind;
        delete from list_line_withdrawal where line_id in (select id from list_line where plant_id = subject);
        update list_line set supersedes = null where supersedes in (select id from list_line where plant_id = subject);
        delete from list_line where plant_id = subject;
        delete from determination_name where number in (select number from determination where plant_id = subject);
        delete from plant_now where plant_id = subject;
        delete from plant_open where plant_id = subject;
        delete from determination where plant_id = subject;
        delete from observation where plant_id = subject;
        delete from plant_visit where plant_id = subject;
        delete from occurrence where plant_id = subject;
        delete from plant where id = subject;
    elsif exists (select from list_line where id = subject) then
        insert into erased (id, kind) values (subject, 'line') on conflict (id) do update set kind = excluded.kind;
        delete from list_line_withdrawal where line_id = subject;
        update list_line set supersedes = null where supersedes = subject;
        delete from list_line where id = subject;
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
    delete from record_name r
    where not exists (select from determination_name n where n.name = r.name) and not exists (select from list_line l where l.taxon = r.name);
    if of_plant is not null then
        perform refresh_plant_now(array[of_plant]);
    end if;
    perform set_config('garten.erasing', 'off', true);
    return of_plant;
end $$;

create or replace function rebuild_lists() returns bigint language plpgsql as $$
begin
    truncate plant_now, plant_open, determination_name, record_name;
    perform refresh_plant_now(array(select id from plant));
    perform refresh_determination_names(array(select number from determination));
    insert into record_name select distinct taxon from list_line where taxon <> '' on conflict do nothing;
    return (select count(*) from plant_now);
end $$;
