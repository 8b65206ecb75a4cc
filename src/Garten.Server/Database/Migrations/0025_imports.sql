-- A file of records that was taken in. It can be taken back as a whole: a fact of its own; what it brought leaves lists, map and exports, its rows stay.
create table import (
    id           uuid        primary key,
    number       bigint      generated always as identity unique,
    file_name    text        not null check (length(file_name) between 1 and 200),
    content_hash text        not null check (content_hash ~ '^[0-9a-f]{64}$'),
    kind         text        not null,
    tally        jsonb       not null,
    taken_in_by  uuid        not null references person,
    recorded_at  timestamptz not null
);
create index import_content on import (content_hash);

create table import_withdrawal (
    import_id    uuid        primary key references import,
    reason       text        not null,
    withdrawn_by uuid        not null references person,
    recorded_at  timestamptz not null
);

create trigger import_is_a_fact before update or delete on import for each row execute function refuse_change();
create trigger import_withdrawal_is_a_fact before update or delete on import_withdrawal for each row execute function refuse_change();

-- What an import brought. A visit of which only a month or a year is known ends its span with visited_until.
alter table place add column import_id uuid references import;
alter table plant add column import_id uuid references import;
alter table site_visit
    add column import_id uuid references import,
    add column visited_until date,
    add constraint site_visit_span check (visited_until > visited_on);
-- No foreign key: a million lines are checked against three other tables already, and come from the one place that writes the import first.
alter table list_line add column import_id uuid;
create index plant_import on plant (import_id) where import_id is not null;
create index list_line_import on list_line (import_id) where import_id is not null;

-- How a determination that was made elsewhere was come to, in the words of its source.
alter table determination add column cited jsonb;

create or replace view list_line_now as
    select l.id, l.number, l.visit_id, v.place_id, v.visited_on, l.recorder, l.compartment, l.unnamed, l.plant_id, l.at, l.details, l.latitude, l.longitude, l.uncertainty_metres,
        case when l.plant_id is null then l.taxon when cardinality(n.names) = 1 then n.names[1] else '' end as name
    from list_line l
    join site_visit v on v.id = l.visit_id
    left join plant_now n on n.plant_id = l.plant_id
    where not exists (select from list_line_withdrawal w where w.line_id = l.id)
        and (l.import_id is null or not exists (select from import_withdrawal w where w.import_id = l.import_id))
        and not exists (
            select from list_line o where o.supersedes = l.id and not exists (select from list_line_withdrawal w where w.line_id = o.id));

create or replace function refresh_plant_now(plants uuid[]) returns void language sql as $$
    insert into plant_now
    select p.id, p.place_id, l.name, p.label, p.tagged_on, p.population_id, d.number, coalesce(d.names, '{}'), d.event_date, d.grade, v.state, greatest(s.seen_on, d.event_date),
        coalesce(s.is_dead, false), coalesce(d.has_needs, false) and not coalesce(s.is_dead, false), lower(p.label || ' ' || coalesce(array_to_string(d.names, ' '), ''))
    from plant p
    join place l on l.id = p.place_id
    left join lateral (
        select number, names, event_date, confirmation ->> 'grade' as grade, jsonb_array_length(confirmation -> 'needs') > 0 as has_needs
        from determination where plant_id = p.id order by number desc limit 1) d on true
    left join lateral (select state from plant_visit where plant_id = p.id order by visited_on desc, number desc limit 1) v on true
    left join lateral (select max(visited_on) filter (where state <> 'notRefound') as seen_on, bool_or(state = 'dead') as is_dead from plant_visit where plant_id = p.id) s on true
    where p.id = any(plants) and (p.import_id is null or not exists (select from import_withdrawal w where w.import_id = p.import_id))
    on conflict (plant_id) do update set (place_id, place_name, label, tagged_on, population_id, number, names, determined_on, grade, state, seen_on, is_dead, is_open, searched) =
        (excluded.place_id, excluded.place_name, excluded.label, excluded.tagged_on, excluded.population_id, excluded.number, excluded.names, excluded.determined_on, excluded.grade,
        excluded.state, excluded.seen_on, excluded.is_dead, excluded.is_open, excluded.searched);
    delete from plant_open where plant_id = any(plants);
    delete from plant_now n using plant p
    where p.id = n.plant_id and n.plant_id = any(plants) and exists (select from import_withdrawal w where w.import_id = p.import_id);
    insert into plant_open
    select n.plant_id, d.confirmation -> 'needs', coalesce(b.confirmation -> 'needs', '[]'), coalesce(d.confirmation -> 'cautions', '[]')
    from plant_now n
    join determination d on d.number = n.number
    left join lateral (select confirmation from determination o where o.plant_id = n.plant_id and o.number < n.number and o.confirmation is not null order by o.number desc limit 1) b on true
    where n.plant_id = any(plants) and n.is_open
$$;

create or replace function refresh_determination_names(numbers bigint[]) returns void language sql as $$
    insert into determination_name
    select distinct n, d.event_date, d.number
    from determination d
    join plant p on p.id = d.plant_id, unnest(d.names || d.name) as n
    where n <> '' and d.number = any(numbers) and (p.import_id is null or not exists (select from import_withdrawal w where w.import_id = p.import_id))
    on conflict do nothing;
    insert into record_name
    select distinct n
    from determination d
    join plant p on p.id = d.plant_id, unnest(d.names || d.name) as n
    where n <> '' and d.number = any(numbers) and (p.import_id is null or not exists (select from import_withdrawal w where w.import_id = p.import_id))
    order by n
    on conflict do nothing
$$;

create or replace function rebuild_lists() returns bigint language plpgsql as $$
begin
    truncate plant_now, plant_open, determination_name, record_name;
    perform refresh_plant_now(array(select id from plant));
    perform refresh_determination_names(array(select number from determination));
    insert into record_name
    select distinct taxon from list_line l
    where taxon <> '' and (l.import_id is null or not exists (select from import_withdrawal w where w.import_id = l.import_id))
    on conflict do nothing;
    return (select count(*) from plant_now);
end $$;
