using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Core.Imports;
using Garten.Core.Keys;
using Garten.Core.Surveys;
using Garten.Formats.Imports;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.People;
using Npgsql;
using NpgsqlTypes;

namespace Garten.Server.Features.Imports;

/// <summary>Lines that are written together.</summary>
/// <param name="Lines">Lines of lists.</param>
/// <param name="Plants">Looks at plants, each with the plant and the names that are open.</param>
internal sealed record LineBatch(
    IReadOnlyList<PlannedLine> Lines,
    IReadOnlyList<(Guid Plant, PlannedLine Line, IReadOnlyList<string> Names)> Plants
)
{
    /// <summary>Makes it of lines that are taken in.</summary>
    public static LineBatch Of(IReadOnlyList<PlannedLine> lines, ImportPlanner planner) =>
        new(
            [.. lines.Where(l => !IsPlant(l))],
            [.. lines.Where(IsPlant).Select(l => (ImportPlanner.IdOf(l.Record.Plant!.Id), l, planner.OpenNames(l)))]
        );

    // A plant is seen on a day; one of which only a month is known is a line of a list.
    private static bool IsPlant(PlannedLine line) => line.Record.Plant is not null && line.Visit.On.IsOneDay;
}

/// <summary>Writes what a file brings, set-wise: places, people, visits, lines, plants and their names.</summary>
/// <param name="context">The command, in whose transaction it is written.</param>
/// <param name="import">The import.</param>
internal sealed class ImportWriter(CommandContext context, Guid import)
{
    private readonly NpgsqlConnection _connection = context.Connection;
    private readonly Dictionary<string, Guid> _people = new(StringComparer.Ordinal);
    private readonly HashSet<Guid> _plants = [];
    private readonly List<(Guid Plant, PlannedLine Line, IReadOnlyList<string> Names)> _named = [];

    // The temporary tables have the columns of the ones they go to; nothing of them stays.
    private const string Tables = """
        create temp table taken_visit (like site_visit including defaults) on commit drop;
        alter table taken_visit alter number drop not null;
        create temp table taken_plant (
            plant_id uuid, place_id uuid, label text, occurrence_id uuid, event_date date, recorded_by uuid, identified_by uuid, determined_at timestamptz,
            name text, names text[], cited jsonb, determination_id uuid) on commit drop;
        """;

    /// <summary>Makes room for it: takes as long as it takes.</summary>
    public async Task BeginAsync(CancellationToken stop)
    {
        await _connection.Command("set local statement_timeout = 0").RunAsync(stop);
        await using var tables = _connection.Command(Tables);
        await tables.ExecuteNonQueryAsync(stop);
    }

    /// <summary>The people of all visits: who is known by their name is the one that is known.</summary>
    public async Task PeopleAsync(IEnumerable<string> names, PersonReference by, PersonReference? usual, CancellationToken stop)
    {
        foreach (var person in new[] { by, usual })
        {
            if (person is not null)
            {
                await PersonRepository.EnsureAsync(context, person, stop);
                _people[person.Name] = person.Id;
            }
        }
        string[] all = [.. names.Where(n => !_people.ContainsKey(n)).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];
        var known = await _connection
            .Command("select name, min(id::text)::uuid from person where name = any($1) group by name", (object)all)
            .ReadAllAsync(r => (r.GetString(0), r.GetGuid(1)), stop);
        foreach (var (name, id) in known)
            _people[name] = id;
        string[] added = [.. all.Where(n => !_people.ContainsKey(n))];
        Guid[] ids = [.. added.Select(_ => Guid.CreateVersion7())];
        await _connection.Command("insert into person (id, name) select * from unnest($1::uuid[], $2::text[])", ids, added).RunAsync(stop);
        for (var i = 0; i < added.Length; i++)
            _people[added[i]] = ids[i];
    }

    /// <summary>The import itself, before anything that hangs on it.</summary>
    public Task ImportAsync(WaitingFile file, string kind, ImportTally tally, PersonReference by, CancellationToken stop) =>
        _connection
            .Command(
                """
                insert into import (id, file_name, content_hash, kind, taken_in_by, recorded_at, tally) values ($1, $2, $3, $4, $5, $6, $7)
                """,
                import,
                file.Name,
                file.Hash,
                kind,
                by.Id,
                context.Now
            )
            .With(Sql.Json(JsonSerializer.Serialize(tally, CoreJson.Default.ImportTally)))
            .RunAsync(stop);

    /// <summary>The new places.</summary>
    public async Task PlacesAsync(IEnumerable<PlannedPlace> places, CancellationToken stop)
    {
        foreach (var place in places.Where(p => p.Known is null && p.HasPosition).DistinctBy(p => p.Id))
        {
            await _connection
                .Command(
                    """
                    insert into place (id, name, locality, latitude, longitude, uncertainty_metres, caution, habitats, import_id)
                    values ($1, $2, $3, $4, $5, $6, '', $7, $8) on conflict (id) do nothing
                    """,
                    place.Id,
                    Name(place.Given).Name,
                    Name(place.Given).Locality,
                    place.Point.Latitude,
                    place.Point.Longitude,
                    Math.Max(place.Metres, 1),
                    place.Habitats.ToArray(),
                    import
                )
                .RunAsync(stop);
            var ground = GroundDescription.None with { Outline = place.Outline };
            // A boundary that crosses itself, say, is no boundary.
            if (place.Outline.Count == 0 || ground.Problem(place.Point) is not null)
                continue;
            await _connection
                .Command("insert into place_ground (place_id, ground) values ($1, $2) on conflict (place_id) do nothing", place.Id)
                .With(Sql.Json(JsonSerializer.Serialize(ground, CoreJson.Default.GroundDescription)))
                .RunAsync(stop);
        }
    }

    // "Cold Fen, north of the mill": what stands behind the first comma says where the place lies.
    private static (string Name, string Locality) Name(string given)
    {
        var comma = given.IndexOf(", ", StringComparison.Ordinal);
        return comma > 0 ? (given[..comma], given[(comma + 2)..]) : (given, "");
    }

    /// <summary>The visits with their people and what was said at their ends. One of an id that is known stays as it is, unless the file
    /// that brought it was taken back.</summary>
    public async Task VisitsAsync(IReadOnlyCollection<PlannedVisit> visits, CancellationToken stop)
    {
        List<PlannedVisit> all = [.. visits.Where(v => v.IsVisit && v.People.Count > 0).DistinctBy(v => v.Id)];
        await using (
            var to = await _connection.BeginBinaryImportAsync(
                """
                copy taken_visit (id, place_id, visited_on, visited_until, started_at, purpose, weather, pauses, version, recorded_at, import_id)
                from stdin (format binary)
                """,
                stop
            )
        )
        {
            foreach (var visit in all)
            {
                await to.StartRowAsync(stop);
                await to.WriteAsync(visit.Id, NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(visit.Place.Id, NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(visit.On.From, NpgsqlDbType.Date, stop);
                await (visit.On.IsOneDay ? to.WriteNullAsync(stop) : to.WriteAsync(visit.On.To, NpgsqlDbType.Date, stop));
                await to.WriteAsync(visit.StartedAt, NpgsqlDbType.Text, stop);
                await to.WriteAsync(visit.Told().Purpose, NpgsqlDbType.Text, stop);
                await to.WriteAsync(visit.Said?.Weather ?? "", NpgsqlDbType.Text, stop);
                await to.WriteAsync(
                    JsonSerializer.Serialize(visit.Pauses(), CoreJson.Default.IReadOnlyListVisitPause),
                    NpgsqlDbType.Jsonb,
                    stop
                );
                await to.WriteAsync(1, NpgsqlDbType.Integer, stop);
                await to.WriteAsync(context.Now, NpgsqlDbType.TimestampTz, stop);
                await to.WriteAsync(import, NpgsqlDbType.Uuid, stop);
            }
            await to.CompleteAsync(stop);
        }
        await RunAsync(
            """
            insert into site_visit (id, place_id, visited_on, visited_until, started_at, purpose, weather, pauses, version, recorded_at, import_id)
            select id, place_id, visited_on, visited_until, started_at, purpose, weather, pauses, version, recorded_at, import_id from taken_visit
            on conflict (id) do update set (place_id, visited_on, visited_until, started_at, purpose, weather, pauses, import_id, version) =
                (excluded.place_id, excluded.visited_on, excluded.visited_until, excluded.started_at, excluded.purpose, excluded.weather,
                    excluded.pauses, excluded.import_id, site_visit.version + 1)
            where exists (select from import_withdrawal w where w.import_id = site_visit.import_id)
            """,
            stop
        );
        var added = (
            await _connection.Command("select id from site_visit where import_id = $1", import).ReadAllAsync(r => r.GetGuid(0), stop)
        ).ToHashSet();
        await _connection.Command("delete from site_visit_person where visit_id = any($1)", (object)added.ToArray()).RunAsync(stop);
        var people = all.Where(v => added.Contains(v.Id))
            .SelectMany(v => v.People.Select((p, at) => (v.Id, Person: _people[p], at)))
            .ToList();
        await _connection
            .Command(
                """
                insert into site_visit_person (visit_id, person_id, place) select * from unnest($1::uuid[], $2::uuid[], $3::int[])
                on conflict do nothing
                """,
                people.Select(p => p.Id).ToArray(),
                people.Select(p => p.Person).ToArray(),
                people.Select(p => p.at + 1).ToArray()
            )
            .RunAsync(stop);
        var closings = all.Where(v => added.Contains(v.Id))
            .Select(v => (v.Id, Closing: v.Closing()))
            .Where(c => c.Closing is not null)
            .ToList();
        await _connection
            .Command(
                """
                insert into site_visit_closing (id, visit_id, recorded_at, closing)
                select gen_random_uuid(), visit, $3, closing::jsonb from unnest($1::uuid[], $2::text[]) as c(visit, closing)
                """,
                closings.Select(c => c.Id).ToArray(),
                closings.Select(c => JsonSerializer.Serialize(c.Closing!, CoreJson.Default.VisitClosing)).ToArray(),
                context.Now
            )
            .RunAsync(stop);
    }

    /// <summary>Lines of lists, so many at once; plants are kept for later. None of their ids is there already.</summary>
    public async Task LinesAsync(LineBatch lines, CancellationToken stop)
    {
        _named.AddRange(lines.Plants);
        await using var to = await _connection.BeginBinaryImportAsync(
            """
            copy list_line (id, visit_id, taxon, unnamed, compartment, recorder, at, details, latitude, longitude, uncertainty_metres, recorded_at, import_id)
            from stdin (format binary)
            """,
            stop
        );
        foreach (var line in lines.Lines)
        {
            if (line.Taxon.Length > 0)
                context.NamesListed.Add(line.Taxon);
            var details = JsonSerializer.Serialize(line.Record.Details, CoreJson.Default.LineDetails);
            // Each who saw it has a line: one record with all of them.
            var recorders = line.Record.Recorders.Count > 0 ? line.Record.Recorders : [line.Visit.People[0]];
            for (var i = 0; i < recorders.Count; i++)
            {
                await to.StartRowAsync(stop);
                await to.WriteAsync(i == 0 ? line.Id : MadeId.Of($"{line.Id:D}\n{recorders[i]}"), NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(line.Visit.Id, NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(line.Taxon, NpgsqlDbType.Text, stop);
                await to.WriteAsync(line.Unnamed, NpgsqlDbType.Text, stop);
                await to.WriteAsync(line.Record.Compartment, NpgsqlDbType.Text, stop);
                await to.WriteAsync(_people[recorders[i]], NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(line.Record.At, NpgsqlDbType.Text, stop);
                await to.WriteAsync(details, NpgsqlDbType.Jsonb, stop);
                await NumberAsync(to, line.Point?.Latitude, stop);
                await NumberAsync(to, line.Point?.Longitude, stop);
                await NumberAsync(to, line.Point is null ? null : Math.Max(line.Metres ?? 1, 1), stop);
                await to.WriteAsync(context.Now, NpgsqlDbType.TimestampTz, stop);
                await to.WriteAsync(import, NpgsqlDbType.Uuid, stop);
            }
        }
        await to.CompleteAsync(stop);
    }

    private static Task NumberAsync(NpgsqlBinaryImporter to, double? number, CancellationToken stop) =>
        number is { } it ? to.WriteAsync(it, NpgsqlDbType.Double, stop) : to.WriteNullAsync(stop);

    /// <summary>Puts it all where it belongs: once all lines are there.</summary>
    public async Task EndAsync(CancellationToken stop)
    {
        await PlantsAsync(stop);
        await RunAsync("analyze site_visit; analyze list_line", stop);
    }

    private async Task PlantsAsync(CancellationToken stop)
    {
        await using (
            var to = await _connection.BeginBinaryImportAsync(
                """
                copy taken_plant (plant_id, place_id, label, occurrence_id, event_date, recorded_by, identified_by, determined_at, name, names, cited, determination_id)
                from stdin (format binary)
                """,
                stop
            )
        )
        {
            foreach (var (plant, line, names) in _named)
            {
                var it = line.Record.Plant!;
                var recorder = line.Record.Recorders.Count > 0 ? line.Record.Recorders[0] : line.Visit.People[0];
                // Noon: the day is the same all over the world but for its edges.
                var on = (it.NamedOn ?? line.Visit.On.From).ToDateTime(new TimeOnly(12, 0), DateTimeKind.Utc);
                await to.StartRowAsync(stop);
                await to.WriteAsync(plant, NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(line.Visit.Place.Id, NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(it.Called, NpgsqlDbType.Text, stop);
                await to.WriteAsync(line.Id, NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(line.Visit.On.From, NpgsqlDbType.Date, stop);
                await to.WriteAsync(_people[recorder], NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(_people[it.NamedBy.Length > 0 ? it.NamedBy : recorder], NpgsqlDbType.Uuid, stop);
                await to.WriteAsync(on, NpgsqlDbType.TimestampTz, stop);
                await to.WriteAsync(Conclusion.SharedName(names), NpgsqlDbType.Text, stop);
                await to.WriteAsync(names.ToArray(), NpgsqlDbType.Array | NpgsqlDbType.Text, stop);
                await to.WriteAsync(
                    JsonSerializer.Serialize(new CitedNaming(it.With, it.Remarks, it.Before), CoreJson.Default.CitedNaming),
                    NpgsqlDbType.Jsonb,
                    stop
                );
                await to.WriteAsync(MadeId.Of($"{line.Id:D}\nnamed"), NpgsqlDbType.Uuid, stop);
            }
            await to.CompleteAsync(stop);
        }
        await RunAsync(
            """
            insert into plant (id, place_id, label, import_id)
            select distinct on (plant_id) plant_id, place_id, label, $1 from taken_plant order by plant_id, event_date desc
            on conflict (id) do update set import_id = excluded.import_id
            where exists (select from import_withdrawal w where w.import_id = plant.import_id)
            """,
            stop,
            import
        );
        await RunAsync(
            """
            insert into occurrence (id, plant_id, event_date, recorded_by) select occurrence_id, plant_id, event_date, recorded_by from taken_plant
            on conflict (id) do nothing
            """,
            stop
        );
        await _connection
            .Command(
                """
                insert into determination (id, occurrence_id, plant_id, place_id, event_date, identified_by, recorded_at, name, names, note, trail, hand, floras, cited)
                select determination_id, occurrence_id, plant_id, place_id, event_date, identified_by, determined_at, name, names, '', '[]', '[]', '{}', cited
                from taken_plant order by event_date, determination_id
                on conflict (id) do nothing
                """
            )
            .RunAsync(stop);
        // Those that stand here again too.
        var plants = _named.Select(n => n.Plant).Distinct().ToArray();
        context.Determined.AddRange(
            await _connection
                .Command("select number from determination where plant_id = any($1)", (object)plants)
                .ReadAllAsync(r => r.GetInt64(0), stop)
        );
        context.PlantsChanged.UnionWith(plants);
    }

    private async Task RunAsync(string sql, CancellationToken stop, params object[] parameters)
    {
        await using var command = _connection.Command(sql, parameters);
        // A million lines take a minute.
        command.CommandTimeout = 0;
        await command.ExecuteNonQueryAsync(stop);
    }
}
