using System.Runtime.InteropServices;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Packs;

/// <summary>A flora as identification loads it.</summary>
/// <param name="Id">Stable identity of the flora.</param>
/// <param name="Name">Its name.</param>
/// <param name="Taxa">All taxa, ordered by name.</param>
/// <param name="Columns">What they are like.</param>
/// <param name="Seasons">When the phenophases last in the region.</param>
/// <param name="Published">The vocabulary that it was published with; null where it names none.</param>
public sealed record FloraPack(
    string Id,
    string Name,
    IReadOnlyList<Taxon> Taxa,
    FloraColumns Columns,
    IReadOnlyList<PhaseWindow> Seasons,
    PublishedVocabulary? Published = null
);

/// <summary>A pack can't be read.</summary>
public sealed class PackFormatException(string message) : Exception(message);

/// <summary>
/// The binary form of a flora: strings once each, then taxa, then a column per character with its distinct cells. It is written for reading
/// quickly in the browser; the interchange form is JSON, and the open ones are the tables and SDD.
/// </summary>
public static class PackFile
{
    private const uint Magic = 0x31504B47;

    /// <summary>Version of the form: a reader knows its own and the one before.</summary>
    public const byte Form = 6;

    // With the definitions of characters, and without the vocabulary that it was published with.
    private const byte FormBefore = 5;

    // A column in which fewer taxa than one in so many are described is written taxon by taxon.
    private const int SparseBelow = 4;

    /// <summary>Writes a flora with the descriptions of genera and forms completed, without the definitions of its characters: these are
    /// read beside it.</summary>
    /// <param name="flora">The flora.</param>
    /// <param name="published">The vocabulary that it was published with; null where it names none.</param>
    public static byte[] Write(Flora flora, Vocabulary? published = null)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var table = flora.Table ?? CharacterTable.Empty;
        var columns = FloraColumns.Of(table.Characters, CharacterTable.Complete(table.Descriptions, flora.Taxa));
        var body = new PackWriter();
        body.Text(flora.Id);
        body.Text(flora.Name);
        body.Count(table.Characters.Count);
        foreach (var character in table.Characters)
            WriteCharacter(body, Undefined(character));
        WriteSeasons(body, table.Seasons);
        body.Count(flora.Taxa.Count);
        foreach (var taxon in flora.Taxa)
            WriteTaxon(body, taxon);
        body.Texts(columns.Taxa);
        foreach (var column in columns.Columns)
            WriteColumn(body, column);
        body.Flag(published is not null);
        if (published is not null)
            body.Bytes(VocabularyFile.Write(PublishedVocabulary.Bare(published), flora.Vocabulary ?? ""));
        return body.WithHead(Magic, Form);
    }

    private static Character Undefined(Character character) =>
        character with
        {
            Definition = "",
            Trap = "",
            States = [.. character.States.Select(s => s.Definition.Length > 0 ? s with { Definition = "" } : s)],
        };

    /// <summary>Reads what <see cref="Write"/> has written.</summary>
    /// <param name="bytes">The pack.</param>
    /// <exception cref="PackFormatException">It is no pack of this form, or cut off.</exception>
    public static FloraPack Read(byte[] bytes)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        return PackReader.Whole(() =>
        {
            var reader = new PackReader(bytes);
            if (reader.Raw() != Magic)
                throw new PackFormatException("This is no pack.");
            var form = reader.Byte();
            if (form is not (Form or FormBefore))
                throw new PackFormatException("This is no pack of this version of the program.");
            reader.TakeStrings();
            var (id, name) = (reader.Text(), reader.Text());
            var characters = new Character[reader.Count()];
            for (var i = 0; i < characters.Length; i++)
                characters[i] = ReadCharacter(reader);
            var seasons = ReadSeasons(reader);
            var taxa = new Taxon[reader.Count()];
            for (var i = 0; i < taxa.Length; i++)
                taxa[i] = ReadTaxon(reader);
            if (taxa.DistinctBy(t => t.Id).Count() != taxa.Length)
                throw new PackFormatException("The pack is broken: two taxa have one id.");
            var rows = reader.Texts();
            var columns = new CharacterColumn[characters.Length];
            for (var c = 0; c < columns.Length; c++)
                columns[c] = ReadColumn(reader, characters[c], rows.Length);
            return new FloraPack(
                id,
                name,
                taxa,
                new FloraColumns(rows, columns),
                seasons,
                form > FormBefore && reader.Flag() ? Published(reader.Bytes().ToArray()) : null
            );
        });
    }

    // Its version stands at its beginning; the whole is read only where the vocabulary of now is another one.
    private static PublishedVocabulary Published(byte[] bytes) =>
        new(VocabularyFile.VersionOf(bytes), () => VocabularyFile.Read(bytes).Vocabulary);

    internal static void WriteSeasons(PackWriter to, IReadOnlyList<PhaseWindow> seasons)
    {
        to.Count(seasons.Count);
        foreach (var window in seasons)
        {
            foreach (var part in new[] { (int)window.Phase, window.FromMonth, window.FromDay, window.ToMonth, window.ToDay })
                to.Count(part);
        }
    }

    internal static PhaseWindow[] ReadSeasons(PackReader from)
    {
        var seasons = new PhaseWindow[from.Count()];
        for (var i = 0; i < seasons.Length; i++)
            seasons[i] = new PhaseWindow((Phenophase)from.Count(), from.Count(), from.Count(), from.Count(), from.Count());
        return seasons;
    }

    internal static void WriteCharacter(PackWriter to, Character c)
    {
        foreach (var text in new[] { c.Id, c.Name, c.Family, c.SizeGroup, c.MeasuredFrom, c.Unit, c.Definition, c.Trap, c.TrendOf })
            to.Text(text);
        foreach (var value in new[] { (int)c.Organ, (int)c.Kind, (int)c.Tool, (int)c.Handling, c.EffortSeconds })
            to.Count(value);
        to.Number(c.Reliability);
        to.Number(c.Detection);
        to.Count(c.States.Count);
        foreach (var state in c.States)
        {
            foreach (var text in new[] { state.Id, state.Name, state.Definition })
                to.Text(text);
            to.Texts(state.Terms);
            to.Text(state.Broader ?? "");
        }
        foreach (var list in new[] { c.Nouns, c.Measures, c.RatioOf ?? [] })
            to.Texts(list);
        to.Count(c.SeenIn.Count);
        foreach (var phase in c.SeenIn)
            to.Byte((byte)phase);
        to.Text(c.Needs?.Character ?? "");
        to.Texts(c.Needs?.States ?? []);
    }

    internal static Character ReadCharacter(PackReader from)
    {
        var (id, name, family, group, measuredFrom, unit, definition, trap, trendOf) = (
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text()
        );
        var (organ, kind, tool, handling, effort) = (
            from.OneOf<Organ>(),
            from.OneOf<CharacterKind>(),
            from.OneOf<Tool>(),
            from.OneOf<Handling>(),
            from.Count()
        );
        var (reliability, detection) = (from.Number() ?? 0, from.Number() ?? 0);
        var states = new CharacterState[from.Count()];
        for (var s = 0; s < states.Length; s++)
            states[s] = new CharacterState(
                from.Text(),
                from.Text(),
                from.Text(),
                from.Texts(),
                from.Text() is { Length: > 0 } broader ? broader : null
            );
        var (nouns, measures, ratioOf) = (from.Texts(), from.Texts(), from.Texts());
        var seenIn = new Phenophase[from.Count()];
        for (var i = 0; i < seenIn.Length; i++)
            seenIn[i] = (Phenophase)from.Byte();
        var (controller, of) = (from.Text(), from.Texts());
        return new Character(
            id,
            name,
            organ,
            kind,
            states,
            nouns,
            measures,
            reliability,
            detection,
            effort,
            tool,
            handling,
            seenIn,
            controller.Length > 0 ? new Applicability(controller, of) : null,
            family,
            group,
            ratioOf.Length > 0 ? ratioOf : null,
            measuredFrom,
            unit,
            definition,
            trap,
            trendOf
        );
    }

    internal static void WriteTaxon(PackWriter to, Taxon taxon)
    {
        foreach (
            var text in new[]
            {
                taxon.Id,
                taxon.Name,
                taxon.Authorship,
                taxon.Rank,
                taxon.Parent,
                taxon.Family,
                taxon.CommonName,
                taxon.CautionNote,
            }
        )
            to.Text(text);
        to.Count(taxon.Cautions.Count);
        foreach (var caution in taxon.Cautions)
            to.Byte((byte)caution);
        to.Byte(taxon.Facts is null ? (byte)0 : (byte)1);
        if (taxon.Facts is not { } facts)
            return;
        to.Texts(facts.Synonyms);
        to.Texts(facts.CommonNames);
        foreach (var text in new[] { facts.Meaning, facts.GrowthForm, facts.Establishment })
            to.Text(text);
        to.Byte((byte)facts.Origin);
        to.Byte(facts.IsSensitive ? (byte)1 : (byte)0);
        foreach (var list in new[] { facts.Habitats, facts.Cells, facts.LookAlikes, facts.Parents, facts.Members, facts.KeyMarks })
            to.Texts(list);
        to.Number(facts.ElevationFrom);
        to.Number(facts.ElevationTo);
        to.Count(facts.Phenology.Count);
        foreach (var span in facts.Phenology)
        {
            to.Byte((byte)span.Phase);
            to.Byte((byte)span.From);
            to.Byte((byte)span.To);
        }
        to.Texts(facts.PlantedIn);
        to.Byte(facts.Indication is null ? (byte)0 : (byte)1);
        if (facts.Indication is not { } indication)
            return;
        foreach (var factor in Enum.GetValues<SiteFactor>())
            to.Number(indication.Of(factor));
        to.Number(indication.Conservatism);
    }

    private static SiteIndication? ReadIndication(PackReader from) =>
        from.Byte() == 0 ? null : new SiteIndication(from.Number(), from.Number(), from.Number(), from.Number(), from.Number());

    internal static Taxon ReadTaxon(PackReader from)
    {
        var (id, name, authorship, rank, parent, family, common, note) = (
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text(),
            from.Text()
        );
        var cautions = new Caution[from.Count()];
        for (var i = 0; i < cautions.Length; i++)
            cautions[i] = (Caution)from.Byte();
        if (from.Byte() == 0)
            return new Taxon(id, name, authorship, rank, parent, family, common, cautions, note);
        var (synonyms, names) = (from.Texts(), from.Texts());
        var (meaning, form, establishment) = (from.Text(), from.Text(), from.Text());
        var (origin, sensitive) = ((Origin)from.Byte(), from.Byte() == 1);
        var (habitats, cells, alikes, parents, members, marks) = (
            from.Texts(),
            from.Texts(),
            from.Texts(),
            from.Texts(),
            from.Texts(),
            from.Texts()
        );
        var (low, high) = (from.Number(), from.Number());
        var phenology = new PhaseSpan[from.Count()];
        for (var i = 0; i < phenology.Length; i++)
            phenology[i] = new PhaseSpan((Phenophase)from.Byte(), from.Byte(), from.Byte());
        return new Taxon(
            id,
            name,
            authorship,
            rank,
            parent,
            family,
            common,
            cautions,
            note,
            new TaxonFacts(
                synonyms,
                names,
                meaning,
                form,
                origin,
                establishment,
                sensitive,
                habitats,
                (int?)low,
                (int?)high,
                cells,
                alikes,
                parents,
                members,
                phenology,
                marks
            )
            {
                PlantedIn = from.Texts(),
                Indication = ReadIndication(from),
            }
        );
    }

    private static void WriteColumn(PackWriter to, CharacterColumn column)
    {
        var cells = column.Cells;
        to.Count(cells.Count);
        foreach (var cell in cells)
            to.Byte(cell.Applies ? (byte)1 : (byte)0);
        if (column.Character.IsQuantity)
        {
            WriteRanges(to, [.. cells.Select(c => c.Range)]);
            var hasShade = cells.Any(c => c.Shade is not null);
            to.Byte(hasShade ? (byte)1 : (byte)0);
            if (hasShade)
                WriteRanges(to, [.. cells.Select(c => c.Shade)]);
        }
        else
        {
            foreach (var cell in cells)
            {
                WriteShares(to, column.Character, cell.States);
                to.Texts(cell.Misread ?? []);
            }
        }
        WriteMore(to, column);
        var of = column.Of();
        var known = 0;
        foreach (var row in of)
            known += row > 0 ? 1 : 0;
        var isSparse = known * SparseBelow < of.Length;
        to.Byte(isSparse ? (byte)1 : (byte)0);
        if (isSparse)
        {
            // How many taxa are passed over, and the cell of the next one.
            to.Count(known);
            var last = -1;
            for (var row = 0; row < of.Length; row++)
            {
                if (of[row] == 0)
                    continue;
                to.Count(row - last - 1);
                to.Count(of[row]);
                last = row;
            }
            return;
        }
        // Two bytes each, so that they are taken as they stand.
        foreach (var row in of)
            to.Pair(row);
    }

    // What few cells have: other contexts, states that stand together.
    private static void WriteMore(PackWriter to, CharacterColumn column)
    {
        var more = Enumerable
            .Range(0, column.Cells.Count)
            .Where(c => column.Cells[c] is { Contexts: not null } or { Sets: not null })
            .ToList();
        to.Count(more.Count);
        foreach (var at in more)
        {
            var cell = column.Cells[at];
            to.Count(at);
            to.Many(cell.Contexts ?? [], context =>
            {
                to.Byte((byte)context.When);
                if (column.Character.IsQuantity)
                    WriteRanges(to, [context.Range]);
                else
                    WriteShares(to, column.Character, context.States);
            });
            to.Many(cell.Sets ?? [], set =>
            {
                to.Many(set.States, state => to.Count(column.Character.IndexOf(state) + 1));
                to.Number(set.Share);
            });
        }
    }

    private static void WriteShares(PackWriter to, Character character, IReadOnlyList<StateShare> states)
    {
        to.Count(states.Count);
        foreach (var share in states)
        {
            to.Count(character.IndexOf(share.State) + 1);
            to.Number(share.Share);
        }
    }

    private static StateShare[] ReadShares(PackReader from, Character character)
    {
        var states = new StateShare[from.Count()];
        for (var s = 0; s < states.Length; s++)
            states[s] = new StateShare(character.States[from.Count() - 1].Id, from.Number() ?? 0);
        return states;
    }

    private sealed record More(IReadOnlyList<ContextCell>? Contexts, IReadOnlyList<StateSet>? Sets);

    private static Dictionary<int, More> ReadMore(PackReader from, Character character)
    {
        var more = new Dictionary<int, More>();
        for (var left = from.Count(); left > 0; left--)
        {
            var at = from.Count();
            var contexts = from.Many(() =>
            {
                var when = (DescribedContext)from.Byte();
                return character.IsQuantity
                    ? new ContextCell(when, [], ReadRanges(from, character.Quantity, 1)[0])
                    : new ContextCell(when, ReadShares(from, character));
            });
            var sets = from.Many(() =>
            {
                var states = from.Many(() => character.States[from.Count() - 1].Id);
                return new StateSet(states, from.Number() ?? 0);
            });
            more[at] = new More(contexts.Length > 0 ? contexts : null, sets.Length > 0 ? sets : null);
        }
        return more;
    }

    private static ushort[] ReadRows(PackReader from, int rows)
    {
        if (from.Byte() == 0)
            return MemoryMarshal.Cast<byte, ushort>(from.Take(rows * sizeof(ushort))).ToArray();
        var of = new ushort[rows];
        var known = from.Count();
        var row = -1;
        for (var i = 0; i < known; i++)
        {
            row = checked(row + from.Count() + 1);
            of[row] = checked((ushort)from.Count());
        }
        return of;
    }

    private static CharacterColumn ReadColumn(PackReader from, Character character, int rows)
    {
        var applies = new bool[from.Count()];
        var are = from.Take(applies.Length);
        for (var c = 0; c < applies.Length; c++)
            applies[c] = are[c] == 1;
        IReadOnlyList<CharacterDescription> cells;
        if (character.IsQuantity)
        {
            var ranges = ReadRanges(from, character.Quantity, applies.Length);
            var shade = from.Byte() == 1 ? ReadRanges(from, character.Quantity, applies.Length) : null;
            cells = new PackedCells(character.Id, applies, ranges, shade, ReadMore(from, character));
        }
        else
        {
            var read = new CharacterDescription[applies.Length];
            for (var c = 0; c < read.Length; c++)
            {
                var states = ReadShares(from, character);
                var misread = from.Texts();
                read[c] = new CharacterDescription(character.Id, states, null, null, applies[c], misread.Length > 0 ? misread : null);
            }
            foreach (var (at, more) in ReadMore(from, character))
                read[at] = read[at] with { Contexts = more.Contexts, Sets = more.Sets };
            cells = read;
        }
        var of = ReadRows(from, rows);
        return new CharacterColumn(character, cells, of, applies);
    }

    // All numbers of a column as whole ones of as many places as the finest has, four bytes each, so that they are taken as they stand; of
    // a column that doesn't fit, the eight bytes of each.
    private static void WriteRanges(PackWriter to, IReadOnlyList<QuantityRange?> ranges)
    {
        foreach (var range in ranges)
            to.Byte(range is null ? byte.MaxValue : (byte)range.Form);
        double?[] numbers =
        [
            .. ranges.SelectMany(r => r is null ? new double?[PackedRanges.Numbers] : [r.Low, r.High, r.LowExtreme, r.HighExtreme]),
        ];
        var places = Array.FindIndex(PackNumber.Tens, ten =>
            Array.TrueForAll(numbers, n => n is not { } number || PackedRanges.Fits(number, ten))
        );
        to.Byte(places < 0 ? byte.MaxValue : (byte)places);
        foreach (var number in numbers)
        {
            if (places >= 0)
                to.Raw(unchecked((uint)(number is { } n ? (int)Math.Round(n * PackNumber.Tens[places]) : PackedRanges.Absent)));
            else
                to.Double(number ?? double.NaN);
        }
    }

    private static PackedRanges ReadRanges(PackReader from, QuantityKind kind, int count)
    {
        var forms = from.Take(count).ToArray();
        var places = from.Byte();
        var length = count * PackedRanges.Numbers;
        return places == byte.MaxValue
            ? new PackedRanges(kind, forms, null, 1, MemoryMarshal.Cast<byte, double>(from.Take(length * sizeof(double))).ToArray())
            : new PackedRanges(
                kind,
                forms,
                MemoryMarshal.Cast<byte, int>(from.Take(length * sizeof(int))).ToArray(),
                PackNumber.Tens[places],
                null
            );
    }

    /// <summary>Ranges as plain numbers: a record for each of those of a large flora would take several times the room.</summary>
    private sealed class PackedRanges(QuantityKind kind, byte[] forms, int[]? scaled, double scale, double[]? plain)
    {
        public const int Numbers = 4;
        public const int Absent = int.MinValue;

        public static bool Fits(double number, double ten) =>
            Math.Abs(number * ten) < int.MaxValue && (Math.Round(number * ten) / ten).Equals(number);

        public QuantityRange? this[int at] =>
            forms[at] == byte.MaxValue
                ? null
                : new QuantityRange(kind, (RangeForm)forms[at], Number(at, 0) ?? 0, Number(at, 1) ?? 0, Number(at, 2), Number(at, 3));

        // A whole number over a power of ten is the nearest double to the decimal, as it was typed.
        private double? Number(int at, int n)
        {
            var place = at * Numbers + n;
            if (scaled is not null)
                return scaled[place] == Absent ? null : scaled[place] / scale;
            return double.IsNaN(plain![place]) ? null : plain[place];
        }
    }

    private sealed class PackedCells(string character, bool[] applies, PackedRanges ranges, PackedRanges? shade, Dictionary<int, More> more)
        : IReadOnlyList<CharacterDescription>
    {
        public int Count => applies.Length;

        public CharacterDescription this[int index] =>
            new(character, [], ranges[index], shade?[index], applies[index], Contexts: more.GetValueOrDefault(index)?.Contexts);

        public IEnumerator<CharacterDescription> GetEnumerator() => Enumerable.Range(0, Count).Select(i => this[i]).GetEnumerator();

        System.Collections.IEnumerator System.Collections.IEnumerable.GetEnumerator() => GetEnumerator();
    }
}
