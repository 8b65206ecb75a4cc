-- What lists and filters read: how each plant stands now, and which names records bear. Both follow from the facts alone; they are written in the
-- transaction of the command that changes them, and the functions below make them again from the facts.
create table plant_now (
    plant_id      uuid    primary key references plant,
    place_id      uuid    not null references place,
    place_name    text    not null,
    label         text    not null,
    tagged_on     date,
    population_id uuid,
    number        bigint,
    names         text[]  not null,
    determined_on date,
    grade         text,
    state         text,
    seen_on       date,
    is_dead       boolean not null,
    is_open       boolean not null,
    searched      text    not null
);
create index plant_now_listed on plant_now (place_name, label, plant_id);
create index plant_now_at_place on plant_now (place_id, place_name, label, plant_id);
create index plant_now_open on plant_now (place_name, label, plant_id) where is_open;

-- What is still to be seen of a plant, apart: it is large, and most lists don't need it.
create table plant_open (
    plant_id     uuid  primary key references plant,
    needs        jsonb not null,
    needs_before jsonb not null,
    cautions     jsonb not null
);

create function refresh_plant_now(plants uuid[]) returns void language sql as $$
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
    where p.id = any(plants)
    on conflict (plant_id) do update set (place_id, place_name, label, tagged_on, population_id, number, names, determined_on, grade, state, seen_on, is_dead, is_open, searched) =
        (excluded.place_id, excluded.place_name, excluded.label, excluded.tagged_on, excluded.population_id, excluded.number, excluded.names, excluded.determined_on, excluded.grade,
        excluded.state, excluded.seen_on, excluded.is_dead, excluded.is_open, excluded.searched);
    delete from plant_open where plant_id = any(plants);
    insert into plant_open
    select n.plant_id, d.confirmation -> 'needs', coalesce(b.confirmation -> 'needs', '[]'), coalesce(d.confirmation -> 'cautions', '[]')
    from plant_now n
    join determination d on d.number = n.number
    left join lateral (select confirmation from determination o where o.plant_id = n.plant_id and o.number < n.number and o.confirmation is not null order by o.number desc limit 1) b on true
    where n.plant_id = any(plants) and n.is_open
$$;

create table determination_name (
    name       text   not null,
    event_date date   not null,
    number     bigint not null references determination (number),
    primary key (name, event_date, number)
);
create table record_name (
    name text primary key
);

create function refresh_determination_names(numbers bigint[]) returns void language sql as $$
    insert into determination_name
    select distinct n, d.event_date, d.number from determination d, unnest(d.names || d.name) as n where n <> '' and d.number = any(numbers)
    on conflict do nothing;
    insert into record_name
    select distinct n from determination d, unnest(d.names || d.name) as n where n <> '' and d.number = any(numbers) order by n
    on conflict do nothing
$$;

create index determination_occurrence on determination (occurrence_id);
create index plant_visit_phases on plant_visit (visited_on) where phases <> '[]';

-- Makes all of it again: it comes out the same.
create function rebuild_lists() returns bigint language plpgsql as $$
begin
    truncate plant_now, plant_open, determination_name, record_name;
    perform refresh_plant_now(array(select id from plant));
    perform refresh_determination_names(array(select number from determination));
    return (select count(*) from plant_now);
end $$;

select rebuild_lists();
