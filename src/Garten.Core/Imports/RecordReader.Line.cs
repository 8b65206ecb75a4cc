using System.Globalization;
using System.Text.Json;
using Garten.Core.Evidence;
using Garten.Core.Grounds;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Imports;

public sealed partial class RecordReader
{
    // One line while it is read.
    private sealed class Line(RecordReader reader, int line, IReadOnlyList<string> cells, ICollection<ImportProblem> problems)
    {
        private readonly List<string> _asides = [];

        public bool IsLeftOut { get; private set; }

        private string Cell(ImportField field) => reader.Cell(cells, field);

        private string Heading(ImportField field) =>
            reader._columns.TryGetValue(field, out var at) && at < reader.Headings.Count ? reader.Headings[at] : "";

        public void Wrong(ImportField field, string code, string message, LineFate fate = LineFate.LeftOut)
        {
            problems.Add(new ImportProblem(line, Heading(field), code, message, fate));
            IsLeftOut |= fate == LineFate.LeftOut;
        }

        public string Text(ImportField field, int longest)
        {
            var text = Cell(field);
            if (text.Length <= longest && !text.Contains('\0', StringComparison.Ordinal))
                return text;
            Wrong(
                field,
                "cell.too-long",
                string.Create(CultureInfo.InvariantCulture, $"This is longer than {longest} characters, or has signs that no text has.")
            );
            return "";
        }

        // What has no name yet is told by the name of all plants in an archive; what it is called stands beside it.
        public string Name()
        {
            var (name, given) = (Text(ImportField.Taxon, LongestName), Text(ImportField.VerbatimName, LongestNote));
            return (name.Length == 0 || name == AllPlants) && given.Length is > 0 and <= LongestName ? given : name;
        }

        public NotebookDay? When()
        {
            var text = Cell(ImportField.Date);
            var isInParts = text.Length == 0 && Cell(ImportField.Year).Length > 0;
            if (text.Length == 0 && !isInParts)
                text = reader.Defaults.Date;
            if (text.Length == 0 && !isInParts)
            {
                Wrong(ImportField.Date, "date.missing", "No day stands here. Give one for all lines that have none.");
                return null;
            }
            var (reading, day) = isInParts
                ? NotebookDay.OfParts(Cell(ImportField.Year), Cell(ImportField.Month), Cell(ImportField.Day))
                : reader.DayOf(text);
            var field = isInParts ? ImportField.Year : ImportField.Date;
            if (reading == DayReading.Read && day!.From > reader.Defaults.Latest)
                Wrong(field, "date.future", $"“{text}” is in the future.");
            else if (reading != DayReading.Read)
            {
                var (code, message) = reading switch
                {
                    DayReading.TwoWays => ("date.two-ways", $"“{text}” can be read in two ways: say which comes first, day or month."),
                    DayReading.NoCentury => ("date.century", $"“{text}” has a year of two figures: write the century too."),
                    _ => ("date.unread", $"“{text}” isn’t read as a date. Write 2021-06-03, 3 June 2021, June 2021 or 2021."),
                };
                Wrong(field, code, message);
            }
            // A span that isn't over yet ends with the last day that there was.
            return day is null || day.To <= reader.Defaults.Latest ? day : day with { To = reader.Defaults.Latest };
        }

        public (string StartedAt, string EndedAt) Times()
        {
            var text = Cell(ImportField.Time);
            if (text.Length == 0)
                return ("", "");
            var parts = text.Split(['/', '–', '-'], StringSplitOptions.TrimEntries);
            var times = parts.Select(Time).ToList();
            if (times.Count > 2 || times.Contains(null))
            {
                Wrong(
                    ImportField.Time,
                    "time.unread",
                    $"“{text}” isn’t read as a time: write 09:40, or 09:40/11:15.",
                    LineFate.TakenWithout
                );
                return ("", "");
            }
            if (times.Count == 2 && string.CompareOrdinal(times[1], times[0]) < 0)
            {
                Wrong(
                    ImportField.Time,
                    "time.order",
                    $"“{text}” ends before it begins. A visit past midnight is two visits.",
                    LineFate.TakenWithout
                );
                return (times[0]!, "");
            }
            return (times[0]!, times.Count == 2 ? times[1]! : "");
        }

        private static readonly string[] TimeForms = ["HH:mm", "H:mm", "HH:mm:ss", "H.mm", "HHmm"];

        private static string? Time(string text) =>
            TimeOnly.TryParseExact(text, TimeForms, CultureInfo.InvariantCulture, DateTimeStyles.None, out var time)
                ? time.ToString("HH:mm", CultureInfo.InvariantCulture)
                : null;

        public bool IsAbsent()
        {
            var text = Cell(ImportField.Status).ToLowerInvariant();
            switch (text)
            {
                case "" or "present" or "1" or "yes" or "found" or "x" or "true":
                    return false;
                case "absent" or "0" or "no" or "not found" or "false":
                    return true;
                default:
                    Wrong(ImportField.Status, "status.unread", $"“{text}” says neither present nor absent.");
                    return false;
            }
        }

        public GroundPoint? Position(ImportField latitude, ImportField longitude, ImportField both)
        {
            var typed =
                Cell(latitude).Length > 0 || Cell(longitude).Length > 0
                    ? TypedPosition.Read(Cell(latitude), Cell(longitude))
                    : TypedPosition.Read(both == ImportField.None ? "" : Cell(both));
            if (typed.Wrong.Length > 0)
                Wrong(
                    reader.Has(latitude) ? latitude : both,
                    "position.unread",
                    typed.Wrong + " It is taken in without a position.",
                    LineFate.TakenWithout
                );
            return typed.Point;
        }

        public double? Metres(ImportField field)
        {
            var text = Cell(field);
            if (text.Length == 0)
                return null;
            var plain = text.TrimEnd('m', ' ').Replace(',', '.');
            if (
                double.TryParse(plain, NumberStyles.Float, CultureInfo.InvariantCulture, out var metres)
                && metres is > 0 and <= LargestCircleMetres
            )
                return metres;
            Wrong(field, "uncertainty.unread", $"“{text}” is no radius in metres above 0.", LineFate.TakenWithout);
            return null;
        }

        private static readonly char[] PeopleSeparators = ['|', ';', '&'];

        public IReadOnlyList<string> People(ImportField field)
        {
            var text = Cell(field);
            if (text.Length == 0)
                return [];
            if (reader._people.TryGetValue(text, out var known))
                return known;
            var people = text.Split(PeopleSeparators, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Distinct(StringComparer.Ordinal)
                .ToList();
            if (people.Count <= MostPeople && people.TrueForAll(p => p.Length <= LongestName))
            {
                if (reader._people.Count < MostKept)
                    reader._people[text] = people;
                return people;
            }
            Wrong(field, "people.many", "These are more people, or longer names, than a visit has.");
            return [];
        }

        public JsonElement Properties()
        {
            var text = Cell(ImportField.Properties);
            if (text.Length == 0)
                return default;
            try
            {
                using var json = JsonDocument.Parse(text);
                return json.RootElement.Clone();
            }
            catch (JsonException)
            {
                return default;
            }
        }

        public LineDetails Details()
        {
            var (count, unit, abundance, isLocal) = Amount();
            var phase = Phase();
            var sex = Sex();
            var growthText = Cell(ImportField.Growth);
            var growth = GrowthOf(growthText);
            if (growthText.Length > 0 && growth is null)
                _asides.Add($"{Heading(ImportField.Growth)}: {growthText}");
            var note = Text(ImportField.Note, LongestNote);
            var determiner = Text(ImportField.Determiner, LongestName);
            if (Plant() is not null || Cell(ImportField.Recorder).Contains(determiner, StringComparison.Ordinal))
                determiner = "";
            var associates = Cell(ImportField.Associates)
                .Split(['|', ';', ','], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            var details = new LineDetails(
                abundance,
                isLocal,
                count,
                unit,
                phase,
                sex,
                growth,
                "",
                associates.Length > 0 ? associates : null,
                // What has no field of its own is kept in words.
                string.Join(". ", _asides.Prepend(note).Where(t => t.Length > 0)),
                determiner
            );
            if (details.Problem() is var (_, message))
                Wrong(ImportField.Count, "details.wrong", message);
            if (associates.Any(a => a.Length > LongestName) || details.Note.Length > LongestNote)
                Wrong(ImportField.Associates, "cell.too-long", "This is longer than a note may be.");
            return details;
        }

        private (int? Count, CountUnit? Unit, Abundance? Abundance, bool IsLocal) Amount()
        {
            int? count = null;
            CountUnit? unit = null;
            var typed = Cell(ImportField.Quantity);
            var unitText = Cell(ImportField.CountUnit);
            var counted = typed.Length > 0 ? typed : Cell(ImportField.Count);
            Abundance? abundance = null;
            var isLocal = false;
            if (counted.Length > 0)
            {
                var known = UnitOf(unitText);
                if (
                    int.TryParse(counted, NumberStyles.AllowThousands, CultureInfo.InvariantCulture, out var number)
                    && (known is not null || unitText.Length == 0)
                )
                {
                    // Of what was looked for in vain 0 is the count; elsewhere it has to be said which is meant.
                    if (number != 0 || Cell(ImportField.Status).Length == 0)
                        (count, unit) = (number, known ?? CountUnit.Individuals);
                }
                else if (AbundanceOf(counted) is var (much, local))
                    (abundance, isLocal) = (much, local);
                else
                    _asides.Add(
                        unitText.Length > 0
                            ? $"{counted} {unitText}"
                            : $"{Heading(typed.Length > 0 ? ImportField.Quantity : ImportField.Count)}: {counted}"
                    );
            }
            var word = Cell(ImportField.Abundance);
            if (word.Length > 0 && AbundanceOf(word) is var (amount, isPart))
                (abundance, isLocal) = (amount, isPart);
            else if (word.Length > 0)
                _asides.Add($"{Heading(ImportField.Abundance)}: {word}");
            return (count, unit, abundance, isLocal);
        }

        private static CountUnit? UnitOf(string text)
        {
            foreach (var unit in Enum.GetValues<CountUnit>())
            {
                if (
                    text.Equals(CountWords.Of(unit), StringComparison.OrdinalIgnoreCase)
                    || text.Equals(CountWords.Of(unit, 1), StringComparison.OrdinalIgnoreCase)
                    || text.Equals(unit.ToString(), StringComparison.OrdinalIgnoreCase)
                )
                    return unit;
            }
            return text.ToLowerInvariant() is "plants" or "plant" ? CountUnit.Individuals : null;
        }

        // One of the five words, or its first letter, with "locally" or an l before it.
        private static (Abundance Much, bool IsLocal)? AbundanceOf(string text)
        {
            var plain = text.Trim().ToLowerInvariant();
            var isLocal = false;
            foreach (var local in new[] { "locally ", "local ", "l. ", "l " })
            {
                if (!plain.StartsWith(local, StringComparison.Ordinal))
                    continue;
                (plain, isLocal) = (plain[local.Length..].Trim(), true);
                break;
            }
            if (plain.Length == 2 && plain[0] == 'l')
                (plain, isLocal) = (plain[1..], true);
            foreach (var it in Enum.GetValues<Abundance>())
            {
                var word = SiteVisitWords.Of(it);
                if (plain == word || plain == word[..1])
                    return (it, isLocal);
            }
            return null;
        }

        private Phenophase? Phase()
        {
            var text = Cell(ImportField.Phase);
            if (text.Length == 0)
                return null;
            foreach (var phase in Enum.GetValues<Phenophase>())
            {
                if (text.Equals(SiteVisitWords.Of(phase), StringComparison.OrdinalIgnoreCase))
                    return phase;
            }
            switch (text.ToLowerInvariant())
            {
                case "flowering" or "flower" or "fl" or "fl.":
                    return Phenophase.Flower;
                case "ripe fruit":
                    return Phenophase.RipeFruit;
            }
            // "Fruiting" says neither young nor ripe.
            _asides.Add($"{Heading(ImportField.Phase)}: {text}");
            return null;
        }

        private PartSex Sex()
        {
            var text = Cell(ImportField.Sex);
            foreach (var sex in Enum.GetValues<PartSex>())
            {
                if (sex != PartSex.Unsaid && text.Equals(SiteVisitWords.Of(sex), StringComparison.OrdinalIgnoreCase))
                    return sex;
            }
            if (text.Length > 0)
                _asides.Add($"{Heading(ImportField.Sex)}: {text}");
            return PartSex.Unsaid;
        }

        public ImportedVisit? Visit()
        {
            if (!reader.TellsVisits)
                return null;
            var minutes = Cell(ImportField.Minutes);
            var complete = Cell(ImportField.Completeness).ToLowerInvariant();
            var it = new ImportedVisit(
                Text(ImportField.VisitNote, LongestFinding),
                Text(ImportField.Weather, LongestFinding),
                int.TryParse(minutes, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0 ? number : null,
                complete switch
                {
                    "reported complete" or "complete" or "yes" or "true" => Completeness.Complete,
                    "reported incomplete" or "incomplete" or "partial" or "no" or "false" => Completeness.Partial,
                    "not reported" => Completeness.Unsaid,
                    _ => null,
                },
                Text(ImportField.Scope, LongestName),
                Position(ImportField.PlaceLatitude, ImportField.PlaceLongitude, ImportField.None),
                Metres(ImportField.PlaceUncertainty),
                Cell(ImportField.Habitat).Split(['|', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries),
                Outline(Cell(ImportField.Outline)),
                People(ImportField.VisitPeople)
            );
            return
                it
                    is {
                        Note: "",
                        Weather: "",
                        PersonMinutes: null,
                        Completeness: null,
                        Scope: "",
                        PlacePoint: null,
                        PlaceMetres: null,
                        Habitats.Count: 0,
                        Outline.Count: 0,
                        People.Count: 0
                    }
                ? null
                : it;
        }

        // The outer ring of a single polygon; anything else is no boundary that is kept.
        private static List<GroundPoint> Outline(string text)
        {
            if (Polygon().Match(text) is not { Success: true } it)
                return [];
            var ring = new List<GroundPoint>();
            foreach (var corner in it.Groups["ring"].Value.Split(','))
            {
                var parts = corner.Split(' ', StringSplitOptions.RemoveEmptyEntries);
                if (
                    parts.Length != 2
                    || !double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var longitude)
                    || !double.TryParse(parts[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var latitude)
                    || !new GroundPoint(latitude, longitude).IsOne()
                )
                    return [];
                ring.Add(new GroundPoint(latitude, longitude));
            }
            if (ring.Count > 1 && ring[0] == ring[^1])
                ring.RemoveAt(ring.Count - 1);
            return ring.Count is >= Ring.FewestCorners and <= Ring.MostCorners ? ring : [];
        }

        public ImportedPlant? Plant()
        {
            if (!reader.Has(ImportField.PlantId))
                return null;
            var id = Text(ImportField.PlantId, LongestName);
            var (called, with, remarks) = (
                Text(ImportField.PlantName, LongestName),
                Text(ImportField.NamedBy, LongestNote),
                Text(ImportField.NamingRemarks, LongestNote)
            );
            if (id.Length == 0 || (called.Length == 0 && with.Length == 0 && remarks.Length == 0))
                return null;
            var (reading, on) = NotebookDay.Read(Cell(ImportField.DeterminedOn), reader.Defaults.Order);
            var given = Text(ImportField.VerbatimName, LongestNote);
            var open = given.Split([", ", " or "], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            return new ImportedPlant(
                id,
                called,
                Text(ImportField.Determiner, LongestName),
                reading == DayReading.Read && on!.IsOneDay ? on.From : null,
                with,
                remarks,
                Text(ImportField.EarlierNames, LongestNote),
                open.Length > 0 ? open : [Name()]
            );
        }
    }
}
