using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Imports;
using Garten.Formats.Imports;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Imports;

/// <summary>Reads a file of records by what was decided of it: once to see what would become of it, and again to take it in.</summary>
/// <param name="file">The file.</param>
/// <param name="choices">What was decided.</param>
/// <param name="taxa">The taxa of all floras.</param>
/// <param name="places">The places that are known.</param>
/// <param name="latest">The latest day that isn't in the future.</param>
/// <param name="source">What ids are made of where the file has none: the import.</param>
/// <param name="mostLines">Most lines that are read.</param>
internal sealed class ImportReading(
    RecordFile file,
    ImportChoices choices,
    IReadOnlyList<Taxon> taxa,
    IReadOnlyList<Place> places,
    DateOnly latest,
    string source,
    int mostLines
)
{
    private readonly NameMatcher _names = new(taxa);

    /// <summary>How dates of numbers are read, and by what; empty where none are there.</summary>
    public string OrderIs { get; private set; } = "";

    private DayOrder _order = choices.Order;

    /// <summary>A planner that has seen nothing yet.</summary>
    /// <param name="known">Places that the file brings itself, where they are settled; null else.</param>
    public ImportPlanner Planner(IEnumerable<PlannedPlace>? known = null) =>
        new(
            Reader(),
            _names,
            [
                .. places.Select(p => new KnownPlace(
                    p.Id,
                    p.Name,
                    p.Locality,
                    new GroundPoint(p.Latitude, p.Longitude),
                    p.UncertaintyMetres,
                    [.. (p.Merged ?? []).Select(m => (m.Id, m.Name))]
                )),
                .. (known ?? [])
                    .Where(p => p.Known is null && p.HasPosition)
                    .Select(p => new KnownPlace(p.Id, p.Given, "", p.Point, p.Metres)),
            ],
            choices.Decisions(),
            source
        );

    private RecordReader Reader() => new(Fields(), file.Headings, new ImportDefaults(_order, choices.Date, latest));

    private IReadOnlyList<ImportField> Fields() => choices.Fields.Count > 0 ? choices.Fields : ImportHeadings.Match(file.Headings);

    /// <summary>Finds out which comes first in dates, where nobody said and the file says it: by a number above 12, as long as no other
    /// one says otherwise.</summary>
    public void SettleOrder(CancellationToken stop)
    {
        if (choices.Order != DayOrder.Unsaid)
        {
            OrderIs = choices.Order == DayOrder.DayFirst ? "The day comes first, as you said." : "The month comes first, as you said.";
            return;
        }
        var reader = Reader();
        if (!reader.Has(ImportField.Date))
            return;
        var seen = new Dictionary<DayOrder, (int Line, string Text)>();
        foreach (var line in Lines(stop))
        {
            var text = reader.Cell(line.Cells, ImportField.Date);
            if (NotebookDay.OrderIn(text) is var order && order != DayOrder.Unsaid)
                seen.TryAdd(order, (line.Number, text));
            if (seen.Count > 1)
                break;
        }
        if (seen.Count == 0)
            return;
        if (seen.Count > 1)
        {
            OrderIs = "Some dates have the day first, others the month: those that can be read in two ways are left out until you say.";
            return;
        }
        var (found, (at, said)) = seen.First();
        _order = found;
        OrderIs = string.Create(
            CultureInfo.InvariantCulture,
            $"The {(found == DayOrder.DayFirst ? "day" : "month")} comes first, since line {at} says {said}."
        );
    }

    /// <summary>The lines of the file.</summary>
    /// <exception cref="RecordFileException">It has more lines than are read, or is broken further on.</exception>
    public IEnumerable<TableLine> Lines(CancellationToken stop)
    {
        var count = 0;
        foreach (var line in file.Lines())
        {
            stop.ThrowIfCancellationRequested();
            if (++count > mostLines)
                throw new RecordFileException("table.rows", $"It has more than {mostLines} lines. Bring it in parts.");
            yield return line;
        }
    }

    /// <summary>What would become of the file.</summary>
    public async Task<ImportPreview> PreviewAsync(NpgsqlConnection connection, CancellationToken stop)
    {
        SettleOrder(stop);
        var planner = Planner();
        var here = new RecordsHere(connection);
        var problems = new List<ImportProblem>();
        var counts = new Dictionary<(string Code, LineFate Fate), int>();
        var (alreadyHere, batch) = (0, new List<PlannedLine>());
        var ofLine = new List<ImportProblem>();
        foreach (var line in Lines(stop))
        {
            ofLine.Clear();
            if (planner.Add(line.Number, line.Cells, ofLine) is { } planned)
                batch.Add(planned);
            foreach (var problem in ofLine)
            {
                counts[(problem.Code, problem.Fate)] = counts.GetValueOrDefault((problem.Code, problem.Fate)) + 1;
                if (problems.Count < ImportPreview.MostProblems)
                    problems.Add(problem);
            }
            if (batch.Count < RecordsHere.AtATime)
                continue;
            alreadyHere += (await here.AmongAsync(batch, choices.KeepsDoubles, stop)).Known.Count;
            batch.Clear();
        }
        alreadyHere += (await here.AmongAsync(batch, choices.KeepsDoubles, stop)).Known.Count;
        return Preview(planner, alreadyHere, problems, counts);
    }

    private ImportPreview Preview(
        ImportPlanner planner,
        int alreadyHere,
        List<ImportProblem> problems,
        Dictionary<(string Code, LineFate Fate), int> counts
    )
    {
        var ids = planner.Places.ToDictionary(p => p, p => places.FirstOrDefault(k => k.Id == p.Known?.Id));
        var names = planner
            .Names.OrderByDescending(n => Wants(n.Match.Fit))
            .ThenByDescending(n => n.Lines)
            .ThenBy(n => n.Match.Given, StringComparer.Ordinal)
            .ToList();
        // A name that is a taxon's needs no look.
        var shown = names.Where(n => n.Match.Fit != NameFit.Accepted).Take(ImportPreview.MostNames).ToList();
        return new ImportPreview(
            planner.Tally,
            planner.Visits.Count(v => v.IsVisit),
            alreadyHere,
            planner.Span?.From,
            planner.Span?.To,
            OrderIs,
            [.. shown.Select(n => new ImportName(n.Match, n.Lines))],
            names.Count - shown.Count,
            [
                .. planner
                    .Places.OrderBy(p => p.HasPosition)
                    .ThenBy(p => p.Known is not null)
                    .ThenByDescending(p => p.Lines)
                    .Take(ImportPreview.MostPlaces)
                    .Select(p => new ImportPlace(p.Given, p.Lines, p.Known?.Id, ids[p]?.Name ?? p.Given, p.HasPosition)),
            ],
            problems,
            [
                .. counts
                    .OrderByDescending(c => c.Value)
                    .ThenBy(c => c.Key.Code, StringComparer.Ordinal)
                    .Select(c => new ImportProblemCount(c.Key.Code, c.Value, c.Key.Fate)),
            ],
            [.. Hinders(planner)]
        );
    }

    private static int Wants(NameFit fit) =>
        fit switch
        {
            NameFit.Several => 5,
            NameFit.Unknown => 4,
            NameFit.Doubtful => 3,
            NameFit.Common => 2,
            NameFit.Synonym => 1,
            _ => 0,
        };

    /// <summary>Why nothing can be taken in yet.</summary>
    public IEnumerable<string> Hinders(ImportPlanner planner)
    {
        if (!Fields().Contains(ImportField.Taxon))
            yield return "No column holds the taxon: say which one does.";
        foreach (var place in planner.Places.Where(p => !p.HasPosition).Take(3))
            yield return $"“{place.Given}” is a new place without any position: choose a known place for it, or add it first.";
        var tally = planner.Tally;
        if (tally.Found + tally.Plants + tally.Absent + tally.Empty == 0)
            yield return tally.Read == 0 ? "There is no line in it." : "None of its lines can be taken in as it is read now.";
    }
}

/// <summary>What of some lines stands here already: by id, or since a list of the same place and day says the same.</summary>
internal sealed class RecordsHere(NpgsqlConnection connection)
{
    /// <summary>So many lines are asked of at once.</summary>
    public const int AtATime = 2_000;

    private readonly Dictionary<Guid, HashSet<(DateOnly Day, string Called, string Compartment)>> _listed = [];

    /// <summary>The ids of the lines that stand here already, or were erased; and of those that a file brought that was taken back: they
    /// may come again.</summary>
    public async Task<(HashSet<Guid> Known, HashSet<Guid> TakenBack)> AmongAsync(
        IReadOnlyList<PlannedLine> lines,
        bool byIdAlone,
        CancellationToken stop
    )
    {
        if (lines.Count == 0)
            return ([], []);
        Guid[] ids = [.. lines.Select(l => l.Id)];
        var there = await connection
            .Command(
                """
                select l.id, exists (select from import_withdrawal w where w.import_id = l.import_id) from list_line l where l.id = any($1)
                union
                select o.id, exists (select from import_withdrawal w where w.import_id = p.import_id)
                from occurrence o join plant p on p.id = o.plant_id where o.id = any($1)
                union
                select id, false from erased where id = any($1)
                """,
                (object)ids
            )
            .ReadAllAsync(r => (Id: r.GetGuid(0), IsTakenBack: r.GetBoolean(1)), stop);
        var found = there.Where(t => !t.IsTakenBack).Select(t => t.Id).ToHashSet();
        var takenBack = there.Where(t => t.IsTakenBack).Select(t => t.Id).ToHashSet();
        foreach (var line in lines)
        {
            if (byIdAlone || line.Record.Plant is not null || line.Visit.Place.Known is not { } place)
                continue;
            var listed = await ListedAsync(place.Id, stop);
            if (listed.Contains((line.Visit.On.From, line.Taxon.Length > 0 ? line.Taxon : line.Unnamed, line.Record.Compartment)))
                found.Add(line.Id);
        }
        return (found, takenBack);
    }

    private async Task<HashSet<(DateOnly, string, string)>> ListedAsync(Guid place, CancellationToken stop)
    {
        if (!_listed.TryGetValue(place, out var listed))
            _listed[place] = listed = [
                .. await connection
                    .Command(
                        """
                        select visited_on, case when name = '' then unnamed else name end, compartment from list_line_now where place_id = $1
                        """,
                        place
                    )
                    .ReadAllAsync(r => (r.GetFieldValue<DateOnly>(0), r.GetString(1), r.GetString(2)), stop),
            ];
        return listed;
    }
}
