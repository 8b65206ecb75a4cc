using System.Globalization;
using System.Text.Json;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Core.Packs;
using Garten.Core.Quantities;

namespace Garten.Core.Contracts;

/// <summary>The binary form of a shelf of keys, for the browser: each distinct cell of the descriptions stands in it once. What persons
/// taught, set or cited is in it as JSON: it is small.</summary>
public static class ShelfFile
{
    private const uint Magic = 0x31534B47;
    private const byte Form = 4;

    /// <summary>Writes a shelf.</summary>
    public static byte[] Write(Shelf shelf)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        var to = new PackWriter();
        to.Many(shelf.Versions, version => WriteVersion(to, version));
        to.Many(shelf.Taxa, taxon => PackFile.WriteTaxon(to, taxon));
        to.Many(shelf.Table.Characters, character => PackFile.WriteCharacter(to, character));
        PackFile.WriteSeasons(to, shelf.Table.Seasons);
        WriteDescriptions(to, shelf.Table.Descriptions);
        to.Bytes(
            shelf is { Taught: [], Corrected: [], Kept: null or [] }
                ? [.. NothingTold]
                : JsonSerializer.SerializeToUtf8Bytes(
                    new ToldByPersons(shelf.Taught, shelf.Corrected, shelf.Kept),
                    CoreJson.Default.ToldByPersons
                )
        );
        to.Text(shelf.ReadBy);
        var written = shelf.Versions.Select(v => v.Hash).ToHashSet(StringComparer.Ordinal);
        List<ReadyReading> readings = [.. shelf.Read.Where(r => written.Contains(r.Hash))];
        to.Many(readings, reading =>
        {
            to.Text(reading.Hash);
            to.Many([.. reading.Couplets], couplet =>
            {
                to.Text(couplet);
                to.Part(part => ReadingForm.Write(part, reading.Find(couplet)!));
            });
        });
        // Behind all that a program of before this was there reads: it passes over it.
        to.Many(readings, reading => to.Many([.. reading.Couplets], couplet => to.Texts(reading.Wanted(couplet)!)));
        return to.WithHead(Magic, Form);
    }

    /// <summary>Reads what <see cref="Write"/> has written.</summary>
    /// <exception cref="PackFormatException">It is no shelf of this form, or cut off.</exception>
    public static Shelf Read(byte[] bytes)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        var from = new PackReader(bytes);
        return PackReader.Whole(() =>
        {
            from.TakeHead(Magic, Form, "shelf");
            var versions = from.Many(() => ReadVersion(from));
            var taxa = from.Many(() => PackFile.ReadTaxon(from));
            var characters = from.Many(() => PackFile.ReadCharacter(from));
            var seasons = PackFile.ReadSeasons(from);
            var table = new CharacterTable(characters, ReadDescriptions(from), seasons);
            var told = ReadTold(from.Bytes());
            var readBy = from.Text();
            var read = from.Many(() => (Hash: from.Text(), Couplets: from.Many(() => LaterRead(from.Text(), from.Part()))));
            // One that was packed before this was there ends here.
            string[][][] wanted = from.IsAtEnd ? [] : from.Many(() => from.Many(from.Texts));
            return new Shelf(versions, taxa, table, told.Taught, told.Corrected, told.Kept)
            {
                ReadBy = readBy,
                Read =
                [
                    .. read.Select(
                        (r, i) =>
                            new ReadyReading(
                                r.Hash,
                                r.Couplets,
                                i < wanted.Length ? r.Couplets.Zip(wanted[i], (c, w) => KeyValuePair.Create(c.Key, w)) : []
                            )
                    ),
                ],
            };
        });
    }

    // How these types are written takes an interpreted core 0.1 to 0.4 s to make; most shelves hold nothing of it.
    private static ToldByPersons ReadTold(ReadOnlySpan<byte> json) =>
        json.SequenceEqual(NothingTold)
            ? new ToldByPersons([], [], null)
            : JsonSerializer.Deserialize(json, CoreJson.Default.ToldByPersons)
                ?? throw new PackFormatException("The shelf lacks what was taught.");

    private static ReadOnlySpan<byte> NothingTold => """{"taught":[],"corrected":[],"kept":null}"""u8;

    private static KeyValuePair<string, Func<IReadOnlyList<IReadOnlyList<StatementReading>>>> LaterRead(string couplet, PackReader from) =>
        new(couplet, () => PackReader.Whole(() => ReadingForm.Read(from)));

    private static void WriteVersion(PackWriter to, KeyVersion version)
    {
        to.Text(version.Hash);
        to.Text(version.Book);
        to.Count(version.Reading);
        to.Text(version.Key.Title);
        to.Count((int)version.Key.Layout);
        to.Texts(version.Key.Notes);
        to.Many(version.Key.Couplets, couplet =>
        {
            to.Text(couplet.Label);
            to.Many(couplet.Leads, lead =>
            {
                to.Texts(lead.Statements);
                to.Flag(lead.Destination is not null);
                if (lead.Destination is { } destination)
                    WriteDestination(to, destination);
            });
        });
    }

    private static KeyVersion ReadVersion(PackReader from)
    {
        var (hash, book, reading) = (from.Text(), from.Text(), from.Count());
        var key = new Key(
            from.Text(),
            from.OneOf<KeyLayout>(),
            from.Texts(),
            from.Many(() => new Couplet(from.Text(), from.Many(() => new Lead(from.Texts(), from.Flag() ? ReadDestination(from) : null))))
        );
        return new KeyVersion(hash, key, book, reading);
    }

    private static void WriteDestination(PackWriter to, LeadDestination destination)
    {
        to.Count((int)destination.Kind);
        to.Text(destination.Target);
        to.Text(destination.Page);
        to.Maybe(destination.Note);
        to.Flag(destination.Taxon is not null);
        if (destination.Taxon is { } taxon)
            WriteName(to, taxon);
        to.Flag(destination.Others is not null);
        to.Many(destination.Others ?? [], name => WriteName(to, name));
        to.Flag(destination.Synonyms is not null);
        to.Texts(destination.Synonyms ?? []);
    }

    private static LeadDestination ReadDestination(PackReader from)
    {
        var (kind, target, page, note) = (from.OneOf<DestinationKind>(), from.Text(), from.Text(), from.Maybe());
        var taxon = from.Flag() ? ReadName(from) : null;
        var hasOthers = from.Flag();
        var others = from.Many(() => ReadName(from));
        var hasSynonyms = from.Flag();
        var synonyms = from.Texts();
        return new LeadDestination(kind, target, taxon, page, hasOthers ? others : null, hasSynonyms ? synonyms : null, note);
    }

    private static void WriteName(PackWriter to, TaxonName name)
    {
        to.Text(name.Name);
        to.Text(name.Authorship);
        to.Text(name.CommonName);
        to.Flag(name.IsScientific);
        to.Maybe(name.Doubt);
    }

    private static TaxonName ReadName(PackReader from) => new(from.Text(), from.Text(), from.Text(), from.Flag()) { Doubt = from.Maybe() };

    private static void WriteDescriptions(PackWriter to, IReadOnlyList<TaxonDescription> descriptions)
    {
        var places = new Dictionary<string, int>(StringComparer.Ordinal);
        List<CharacterDescription> cells = [];
        List<List<int>> rows = [];
        foreach (var description in descriptions)
        {
            List<int> row = [];
            foreach (var cell in description.Characters)
            {
                var key = KeyOf(cell);
                if (!places.TryGetValue(key, out var at))
                {
                    places.Add(key, at = cells.Count);
                    cells.Add(cell);
                }
                row.Add(at);
            }
            rows.Add(row);
        }
        to.Many(cells, cell => WriteCell(to, cell));
        to.Count(descriptions.Count);
        for (var i = 0; i < descriptions.Count; i++)
        {
            to.Text(descriptions[i].Taxon);
            to.Flag(descriptions[i].IsProvisional);
            to.Many(rows[i], to.Count);
        }
    }

    private static TaxonDescription[] ReadDescriptions(PackReader from)
    {
        var cells = from.Many(() => ReadCell(from));
        return from.Many(() =>
        {
            var (taxon, isProvisional) = (from.Text(), from.Flag());
            return new TaxonDescription(taxon, from.Many(() => cells[from.Count()]), isProvisional);
        });
    }

    // Two cells with the same words are one.
    private static string KeyOf(CharacterDescription cell) =>
        string.Join(
            '\u001f',
            [
                cell.Character,
                cell.Applies ? "1" : "0",
                cell.Range?.ToString() ?? "",
                cell.Shade?.ToString() ?? "",
                .. cell.States.Select(s => $"{s.State}\u001e{s.Share.ToString("R", CultureInfo.InvariantCulture)}"),
                cell.Misread is null ? "" : "\u001d",
                .. cell.Misread ?? [],
                .. (cell.Contexts ?? []).Select(c =>
                    $"\u001c{c.When}{c.Range}{string.Join('\u001e', c.States.Select(s => $"{s.State}{s.Share:R}"))}"
                ),
                .. (cell.Sets ?? []).Select(s => $"\u001b{string.Join('\u001e', s.States)}{s.Share:R}"),
            ]
        );

    private static void WriteCell(PackWriter to, CharacterDescription cell)
    {
        to.Text(cell.Character);
        to.Flag(cell.Applies);
        WriteShares(to, cell.States);
        WriteRange(to, cell.Range);
        WriteRange(to, cell.Shade);
        to.Flag(cell.Misread is not null);
        to.Texts(cell.Misread ?? []);
        to.Many(cell.Contexts ?? [], context =>
        {
            to.Count((int)context.When);
            WriteShares(to, context.States);
            WriteRange(to, context.Range);
        });
        to.Many(cell.Sets ?? [], set =>
        {
            to.Texts(set.States);
            to.Number(set.Share);
        });
    }

    private static void WriteShares(PackWriter to, IReadOnlyList<StateShare> states) => to.Many(states, share =>
        {
            to.Text(share.State);
            to.Number(share.Share);
        });

    private static StateShare[] ReadShares(PackReader from) => from.Many(() => new StateShare(from.Text(), from.Number() ?? 0));

    private static CharacterDescription ReadCell(PackReader from)
    {
        var (character, applies) = (from.Text(), from.Flag());
        var states = ReadShares(from);
        var (range, shade) = (ReadRange(from), ReadRange(from));
        var hasMisread = from.Flag();
        var misread = from.Texts();
        var contexts = from.Many(() => new ContextCell((DescribedContext)from.Count(), ReadShares(from), ReadRange(from)));
        var sets = from.Many(() => new StateSet(from.Texts(), from.Number() ?? 0));
        return new CharacterDescription(
            character,
            states,
            range,
            shade,
            applies,
            hasMisread ? misread : null,
            contexts.Length > 0 ? contexts : null,
            sets.Length > 0 ? sets : null
        );
    }

    internal static void WriteRange(PackWriter to, QuantityRange? range)
    {
        to.Flag(range is not null);
        if (range is null)
            return;
        to.Count((int)range.Kind);
        to.Count((int)range.Form);
        foreach (var number in new[] { range.Low, range.High, range.LowExtreme, range.HighExtreme })
            to.Number(number);
        to.Text(range.Text);
    }

    internal static QuantityRange? ReadRange(PackReader from) =>
        from.Flag()
            ? new QuantityRange(
                from.OneOf<QuantityKind>(),
                from.OneOf<RangeForm>(),
                from.Number() ?? 0,
                from.Number() ?? 0,
                from.Number(),
                from.Number(),
                from.Text()
            )
            : null;
}

/// <summary>What of a shelf stands in its file as JSON.</summary>
/// <param name="Taught">Terms that persons have taught.</param>
/// <param name="Corrected">Readings of statements that persons have set.</param>
/// <param name="Kept">Older readings that answers cite; left out: none.</param>
public sealed record ToldByPersons(
    IReadOnlyList<TaughtTerm> Taught,
    IReadOnlyList<CorrectedStatement> Corrected,
    IReadOnlyList<KeptReading>? Kept
);
