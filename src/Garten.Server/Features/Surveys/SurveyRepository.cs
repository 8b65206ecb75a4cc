using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Surveys.Plots;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.People;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Garten.Server.Features.SiteVisits;
using Npgsql;

namespace Garten.Server.Features.Surveys;

/// <summary>Surveys, their plots and what was recorded in these.</summary>
internal sealed class SurveyRepository(NpgsqlDataSource database)
{
    // What holds of the records of a plot: those that no other one corrects.
    private const string Holds = "not exists (select from plot_record o where o.supersedes = r.id)";

    /// <summary>All surveys in short, the newest first.</summary>
    public async Task<IReadOnlyList<SurveySummary>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                $"""
                select s.id, s.name, s.starts_on, s.ends_on, w.name,
                    array(select l.name from survey_place p join place l on l.id = p.place_id where p.survey_id = s.id order by p.place),
                    (select count(*) from site_visit v join survey_place p on p.place_id = v.place_id and p.survey_id = s.id
                        where v.visited_on between s.starts_on and s.ends_on
                            and (v.import_id is null or not exists (select from import_withdrawal b where b.import_id = v.import_id)))::int,
                    (select count(*) from plot where survey_id = s.id)::int,
                    (select count(*) from plot_record r join plot p on p.id = r.plot_id where p.survey_id = s.id and {Holds})::int,
                    array(select p.place_id from survey_place p where p.survey_id = s.id order by p.place), coalesce(s.terms->>'rules', '')
                from survey s join person w on w.id = s.leader
                order by s.starts_on desc, s.name, s.id
                """
            )
            .ReadAllAsync(
                r => new SurveySummary(
                    r.GetGuid(0),
                    r.GetString(1),
                    r.GetFieldValue<DateOnly>(2),
                    r.GetFieldValue<DateOnly>(3),
                    r.GetString(4),
                    r.GetFieldValue<string[]>(5),
                    r.GetInt32(6),
                    r.GetInt32(7),
                    r.GetInt32(8),
                    r.GetFieldValue<Guid[]>(9),
                    r.GetString(10)
                ),
                stop
            );
    }

    /// <summary>A survey with all that belongs to it; null where there is none of this id.</summary>
    public async Task<SurveyWhole?> FindAsync(Guid id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await FindAsync(connection, id, stop);
    }

    internal static async Task<SurveyWhole?> FindAsync(NpgsqlConnection connection, Guid id, CancellationToken stop)
    {
        var surveys = await connection
            .Command(
                """
                select s.name, s.question, s.starts_on, s.ends_on, w.id, w.name, s.sought, s.version, s.terms::text
                from survey s join person w on w.id = s.leader where s.id = $1
                """,
                id
            )
            .ReadAllAsync(
                r => new Survey(
                    id,
                    r.GetString(0),
                    r.GetString(1),
                    r.GetFieldValue<DateOnly>(2),
                    r.GetFieldValue<DateOnly>(3),
                    new PersonReference(r.GetGuid(4), r.GetString(5)),
                    [],
                    r.GetFieldValue<string[]>(6),
                    [],
                    new Dictionary<string, string>(),
                    r.GetInt32(7),
                    JsonSerializer.Deserialize(r.GetString(8), CoreJson.Default.SurveyTerms)!,
                    []
                ),
                stop
            );
        if (surveys is not [var bare])
            return null;
        var places = await connection
            .Command(
                $"select {PlaceRepository.Columns} from survey_place p join place l on l.id = p.place_id where p.survey_id = $1 "
                    + $"order by p.place",
                id
            )
            .ReadAllAsync(r => PlaceRepository.Read(r, 0), stop);
        var protocols = await connection
            .Command("select version, protocol from survey_protocol where survey_id = $1 order by version", id)
            .ReadAllAsync(r => new ProtocolVersion(r.GetInt32(0), Protocol(r.GetString(1))), stop);
        var texts = await connection
            .Command("select key, text from survey_text where survey_id = $1 order by key", id)
            .ReadAllAsync(r => (r.GetString(0), r.GetString(1)), stop);
        var team = await connection
            .Command(
                "select w.id, w.name from survey_person p join person w on w.id = p.person_id where p.survey_id = $1 order by p.place",
                id
            )
            .ReadAllAsync(r => new PersonReference(r.GetGuid(0), r.GetString(1)), stop);
        var survey = bare with
        {
            Team = team,
            Places = places,
            Protocols = protocols,
            Texts = texts.ToDictionary(t => t.Item1, t => t.Item2, StringComparer.Ordinal),
        };
        return new SurveyWhole(
            survey,
            await PlotsAsync(connection, id, stop),
            await RecordsAsync(connection, id, stop),
            await SiteVisitRepository.BetweenAsync(connection, [.. places.Select(p => p.Id)], survey.From, survey.To, stop),
            await connection
                .Command("select id, for_whom, kept_at, version from survey_report where survey_id = $1 order by version", id)
                .ReadAllAsync(r => new KeptReport(r.GetGuid(0), r.GetString(1), r.GetFieldValue<DateTimeOffset>(2), r.GetInt32(3)), stop)
        );
    }

    private static SurveyProtocol Protocol(string json) => JsonSerializer.Deserialize(json, CoreJson.Default.SurveyProtocol)!;

    private static Task<List<Plot>> PlotsAsync(NpgsqlConnection connection, Guid survey, CancellationToken stop) =>
        connection
            .Command(
                """
                select id, place_id, label, is_permanent, laid, seed, latitude, longitude, uncertainty_metres, part, compared_under,
                    square_metres, finding, version
                from plot where survey_id = $1 order by label collate "C", id
                """,
                survey
            )
            .ReadAllAsync(
                r => new Plot(
                    r.GetGuid(0),
                    r.GetGuid(1),
                    r.GetString(2),
                    r.GetBoolean(3),
                    Enum.Parse<PlotPlacing>(r.GetString(4)),
                    r.IsDBNull(5) ? null : r.GetInt64(5),
                    PlantRepository.Site(r, 6),
                    r.GetString(9),
                    r.GetString(10),
                    r.IsDBNull(11) ? null : r.GetDouble(11),
                    JsonSerializer.Deserialize(r.GetString(12), CoreJson.Default.PlotFinding) ?? PlotFinding.None,
                    r.GetInt32(13)
                ),
                stop
            );

    private static Task<List<PlotRecord>> RecordsAsync(NpgsqlConnection connection, Guid survey, CancellationToken stop) =>
        connection
            .Command(
                """
                select r.id, r.plot_id, r.visit_id, v.visited_on, w.name, r.protocol_version, r.finds, r.layers, r.bare_ground, r.litter,
                    r.minutes, r.departure, r.note, r.repeats, r.supersedes
                from plot_record r
                join plot p on p.id = r.plot_id
                join site_visit v on v.id = r.visit_id
                join person w on w.id = r.recorder
                where p.survey_id = $1 order by r.number
                """,
                survey
            )
            .ReadAllAsync(
                r => new PlotRecord(
                    r.GetGuid(0),
                    r.GetGuid(1),
                    r.GetGuid(2),
                    r.GetFieldValue<DateOnly>(3),
                    r.GetString(4),
                    r.GetInt32(5),
                    JsonSerializer.Deserialize(r.GetString(6), CoreJson.Default.IReadOnlyListPlotFind) ?? [],
                    JsonSerializer.Deserialize(r.GetString(7), CoreJson.Default.IReadOnlyListPlotLayer) ?? [],
                    r.IsDBNull(8) ? null : r.GetDouble(8),
                    r.IsDBNull(9) ? null : r.GetDouble(9),
                    r.IsDBNull(10) ? null : r.GetInt32(10),
                    r.GetString(11),
                    r.GetString(12),
                    r.IsDBNull(13) ? null : r.GetGuid(13),
                    r.IsDBNull(14) ? null : r.GetGuid(14)
                ),
                stop
            );

    /// <summary>A report as it was kept; null where there is none of this id.</summary>
    public async Task<(string Page, int Version)?> ReportAsync(Guid id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var found = await connection
            .Command("select page, version from survey_report where id = $1", id)
            .ReadAllAsync(r => (r.GetString(0), r.GetInt32(1)), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<int?> VersionAsync(NpgsqlConnection connection, Guid survey, CancellationToken stop)
    {
        var found = await connection.Command("select version from survey where id = $1", survey).ReadAllAsync(r => r.GetInt32(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<int> PlacesKnownAsync(NpgsqlConnection connection, Guid[] places, CancellationToken stop) =>
        (
            await connection
                .Command("select count(*)::int from place where id = any($1)", (object)places)
                .ReadAllAsync(r => r.GetInt32(0), stop)
        )[0];

    internal static async Task<bool> HasPlaceAsync(NpgsqlConnection connection, Guid survey, Guid place, CancellationToken stop) =>
        (
            await connection
                .Command("select exists (select from survey_place where survey_id = $1 and place_id = $2)", survey, place)
                .ReadAllAsync(r => r.GetBoolean(0), stop)
        )[0];

    // The label of a plot that lies beside the places; null where none does.
    internal static async Task<string?> PlotBesideAsync(NpgsqlConnection connection, Guid survey, Guid[] places, CancellationToken stop) =>
        (
            await connection
                .Command("select label from plot where survey_id = $1 and place_id <> all($2) order by label limit 1", survey, places)
                .ReadAllAsync(r => r.GetString(0), stop)
        ).FirstOrDefault();

    internal static async Task<PlotKnown?> PlotAsync(NpgsqlConnection connection, Guid plot, CancellationToken stop) =>
        (
            await connection
                .Command(
                    """
                    select p.survey_id, p.place_id, p.label, p.version, s.starts_on, s.ends_on
                    from plot p join survey s on s.id = p.survey_id where p.id = $1
                    """,
                    plot
                )
                .ReadAllAsync(
                    r => new PlotKnown(
                        r.GetGuid(0),
                        r.GetGuid(1),
                        r.GetString(2),
                        r.GetInt32(3),
                        r.GetFieldValue<DateOnly>(4),
                        r.GetFieldValue<DateOnly>(5)
                    ),
                    stop
                )
        ).FirstOrDefault();

    internal static async Task<bool> IsLabelTakenAsync(NpgsqlConnection connection, SavePlotCommand it, CancellationToken stop) =>
        (
            await connection
                .Command(
                    "select exists (select from plot where survey_id = $1 and label = $2 and id <> $3)",
                    it.SurveyId,
                    it.Label,
                    it.PlotId
                )
                .ReadAllAsync(r => r.GetBoolean(0), stop)
        )[0];

    internal static async Task<ProtocolVersion?> NewestProtocolAsync(NpgsqlConnection connection, Guid survey, CancellationToken stop) =>
        (
            await connection
                .Command("select version, protocol from survey_protocol where survey_id = $1 order by version desc limit 1", survey)
                .ReadAllAsync(r => new ProtocolVersion(r.GetInt32(0), Protocol(r.GetString(1))), stop)
        ).FirstOrDefault();

    internal static async Task<(Guid Place, DateOnly Day)?> VisitAsync(NpgsqlConnection connection, Guid visit, CancellationToken stop)
    {
        var found = await connection
            .Command("select place_id, visited_on from site_visit where id = $1", visit)
            .ReadAllAsync(r => (r.GetGuid(0), r.GetFieldValue<DateOnly>(1)), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<Guid?> PlotOfRecordAsync(NpgsqlConnection connection, Guid record, CancellationToken stop)
    {
        var found = await connection.Command("select plot_id from plot_record where id = $1", record).ReadAllAsync(r => r.GetGuid(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<bool> IsCorrectedAsync(NpgsqlConnection connection, Guid record, CancellationToken stop) =>
        (
            await connection
                .Command("select exists (select from plot_record where supersedes = $1)", record)
                .ReadAllAsync(r => r.GetBoolean(0), stop)
        )[0];

    internal static async Task<bool> IsRecordedAsync(NpgsqlConnection connection, Guid plot, Guid visit, CancellationToken stop) =>
        (
            await connection
                .Command(
                    "select exists (select from plot_record where plot_id = $1 and visit_id = $2 and repeats is null and supersedes "
                        + "is null)",
                    plot,
                    visit
                )
                .ReadAllAsync(r => r.GetBoolean(0), stop)
        )[0];

    internal static async Task SaveAsync(CommandContext context, SaveSurveyCommand it, DateOnly from, DateOnly to, CancellationToken stop)
    {
        await context
            .Connection.Command(
                """
                insert into survey (id, name, question, starts_on, ends_on, leader, sought, recorded_at)
                values ($1, $2, $3, $4, $5, $6, $7, $8)
                on conflict (id) do update set (name, question, starts_on, ends_on, leader, sought, version) =
                    (excluded.name, excluded.question, excluded.starts_on, excluded.ends_on, excluded.leader, excluded.sought, survey.version + 1)
                """,
                it.SurveyId,
                it.Name,
                it.Question,
                from,
                to,
                it.Leader.Id,
                it.Sought.ToArray(),
                context.Now
            )
            .RunAsync(stop);
        if (it.Terms is { } terms)
            await context
                .Connection.Command("update survey set terms = $2 where id = $1", it.SurveyId)
                .With(Sql.Json(JsonSerializer.Serialize(terms, CoreJson.Default.SurveyTerms)))
                .RunAsync(stop);
        if (it.Team is { } team)
            await TeamAsync(context, it.SurveyId, team, stop);
        await context.Connection.Command("delete from survey_place where survey_id = $1", it.SurveyId).RunAsync(stop);
        await context
            .Connection.Command(
                "insert into survey_place (survey_id, place_id, place) select $1, id, place from unnest($2::uuid[]) with ordinality "
                    + "as p(id, place)",
                it.SurveyId,
                it.PlaceIds.ToArray()
            )
            .RunAsync(stop);
        var newest = await NewestProtocolAsync(context.Connection, it.SurveyId, stop);
        var before = newest is null ? (IReadOnlyList<ProtocolVersion>)[] : [newest];
        if (SurveyDocuments.With(before, it.Protocol) is var after && after.Count > before.Count)
            await context
                .Connection.Command(
                    "insert into survey_protocol (survey_id, version, recorded_at, protocol) values ($1, $2, $3, $4)",
                    it.SurveyId,
                    (newest?.Version ?? 0) + 1,
                    context.Now
                )
                .With(Sql.Json(JsonSerializer.Serialize(it.Protocol!, CoreJson.Default.SurveyProtocol)))
                .RunAsync(stop);
    }

    private static async Task TeamAsync(CommandContext context, Guid survey, IReadOnlyList<PersonReference> team, CancellationToken stop)
    {
        foreach (var person in team)
            await PersonRepository.EnsureAsync(context, person, stop);
        await context.Connection.Command("delete from survey_person where survey_id = $1", survey).RunAsync(stop);
        await context
            .Connection.Command(
                "insert into survey_person (survey_id, person_id, place) select $1, id, place from unnest($2::uuid[]) with ordinality "
                    + "as p(id, place)",
                survey,
                team.Select(p => p.Id).ToArray()
            )
            .RunAsync(stop);
    }

    internal static Task SavePlotAsync(CommandContext context, SavePlotCommand it, CancellationToken stop) =>
        context
            .Connection.Command(
                """
                insert into plot (id, survey_id, place_id, label, is_permanent, laid, seed, latitude, longitude, uncertainty_metres, part,
                    compared_under, square_metres, finding)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14)
                on conflict (id) do update set (place_id, label, is_permanent, laid, seed, latitude, longitude, uncertainty_metres, part,
                    compared_under, square_metres, finding, version) = (excluded.place_id, excluded.label, excluded.is_permanent,
                    excluded.laid, excluded.seed, excluded.latitude, excluded.longitude, excluded.uncertainty_metres, excluded.part,
                    excluded.compared_under, excluded.square_metres, excluded.finding, plot.version + 1)
                """,
                it.PlotId,
                it.SurveyId,
                it.PlaceId,
                it.Label,
                it.IsPermanent,
                it.Placing.ToString(),
                it.Seed,
                it.Site?.Latitude,
                it.Site?.Longitude,
                it.Site?.UncertaintyMetres,
                it.Part,
                it.Group,
                it.SquareMetres
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Finding ?? PlotFinding.None, CoreJson.Default.PlotFinding)))
            .RunAsync(stop);

    // False where a record of this id stands already.
    internal static async Task<bool> AddRecordAsync(CommandContext context, RecordPlotCommand it, int protocol, CancellationToken stop) =>
        await context
            .Connection.Command(
                """
                insert into plot_record (id, plot_id, visit_id, recorder, protocol_version, bare_ground, litter, minutes, departure, note,
                    repeats, supersedes, recorded_at, finds, layers)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)
                on conflict (id) do nothing
                """,
                it.RecordId,
                it.PlotId,
                it.SiteVisitId,
                it.Recorder.Id,
                protocol,
                it.BareGround,
                it.Litter,
                it.Minutes,
                it.Departure,
                it.Note,
                it.Repeats,
                it.Supersedes,
                context.Now
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Finds, CoreJson.Default.IReadOnlyListPlotFind)))
            .With(Sql.Json(JsonSerializer.Serialize(it.Layers ?? [], CoreJson.Default.IReadOnlyListPlotLayer)))
            .RunAsync(stop) == 1;
}

/// <summary>What is known of a plot where one is recorded.</summary>
internal sealed record PlotKnown(Guid Survey, Guid Place, string Label, int Version, DateOnly From, DateOnly To);
