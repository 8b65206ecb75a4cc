using System.Buffers;
using System.Buffers.Binary;
using System.Runtime.InteropServices;
using System.Text;
using System.Text.Json;
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
public sealed record FloraPack(string Id, string Name, IReadOnlyList<Taxon> Taxa, FloraColumns Columns, IReadOnlyList<PhaseWindow> Seasons);

/// <summary>A pack can't be read.</summary>
public sealed class PackFormatException(string message) : Exception(message);

/// <summary>
/// The binary form of a flora: strings once each, then taxa, then a column per character with its distinct cells. It is written for reading
/// quickly in the browser; the interchange form is JSON, and the open ones are the tables and SDD.
/// </summary>
public static class PackFile
{
    private const uint Magic = 0x31504B47;

    /// <summary>Version of the form: a reader knows just its own.</summary>
    public const byte Form = 1;

    // Numbers are kept as decimals of up to so many places where that gives them back exactly.
    private const int MostPlaces = 6;
    private const int Plain = 7;
    private static readonly double[] Tens = [1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6];

    /// <summary>Writes a flora with the descriptions of genera and forms completed.</summary>
    /// <param name="flora">The flora.</param>
    /// <param name="characters">Writes characters as JSON.</param>
    public static byte[] Write(Flora flora, Func<CharacterTable, byte[]> characters)
    {
        ArgumentNullException.ThrowIfNull(flora);
        ArgumentNullException.ThrowIfNull(characters);
        var table = flora.Table ?? CharacterTable.Empty;
        var columns = FloraColumns.Of(table.Characters, CharacterTable.Complete(table.Descriptions, flora.Taxa));
        var body = new Writer();
        body.Text(flora.Id);
        body.Text(flora.Name);
        body.Bytes(characters(table with { Descriptions = [] }));
        body.Count(flora.Taxa.Count);
        foreach (var taxon in flora.Taxa) WriteTaxon(body, taxon);
        body.Texts(columns.Taxa);
        foreach (var column in columns.Columns) WriteColumn(body, column);
        var head = new Writer();
        head.Raw(Magic);
        head.Byte(Form);
        head.Count(body.Strings.Count);
        foreach (var text in body.Strings) head.Bytes(Encoding.UTF8.GetBytes(text));
        return [.. head.Written, .. body.Written];
    }

    /// <summary>Reads what <see cref="Write"/> has written.</summary>
    /// <param name="bytes">The pack.</param>
    /// <param name="characters">Reads characters from JSON.</param>
    /// <exception cref="PackFormatException">It is no pack of this form, or cut off.</exception>
    public static FloraPack Read(byte[] bytes, Func<byte[], CharacterTable> characters)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        ArgumentNullException.ThrowIfNull(characters);
        try
        {
            var reader = new Reader(bytes);
            if (reader.Raw() != Magic || reader.Byte() != Form) throw new PackFormatException("This is no pack of this version of the program.");
            var strings = new string[reader.Count()];
            for (var i = 0; i < strings.Length; i++) strings[i] = Encoding.UTF8.GetString(reader.Bytes());
            reader.Strings = strings;
            var (id, name) = (reader.Text(), reader.Text());
            var table = characters(reader.Bytes().ToArray());
            var taxa = new Taxon[reader.Count()];
            for (var i = 0; i < taxa.Length; i++) taxa[i] = ReadTaxon(reader);
            var rows = reader.Texts();
            var columns = new CharacterColumn[table.Characters.Count];
            for (var c = 0; c < columns.Length; c++) columns[c] = ReadColumn(reader, table.Characters[c], rows.Length);
            return new FloraPack(id, name, taxa, new FloraColumns(rows, columns), table.Seasons);
        }
        catch (Exception error) when (error is IndexOutOfRangeException or ArgumentException or OverflowException or JsonException or OutOfMemoryException)
        {
            throw new PackFormatException($"The pack is cut off or broken: {error.Message}");
        }
    }

    private static void WriteTaxon(Writer to, Taxon taxon)
    {
        foreach (var text in new[] { taxon.Id, taxon.Name, taxon.Authorship, taxon.Rank, taxon.Parent, taxon.Family, taxon.CommonName, taxon.CautionNote }) to.Text(text);
        to.Count(taxon.Cautions.Count);
        foreach (var caution in taxon.Cautions) to.Byte((byte)caution);
        to.Byte(taxon.Facts is null ? (byte)0 : (byte)1);
        if (taxon.Facts is not { } facts) return;
        to.Texts(facts.Synonyms);
        to.Texts(facts.CommonNames);
        foreach (var text in new[] { facts.Meaning, facts.GrowthForm, facts.Establishment }) to.Text(text);
        to.Byte((byte)facts.Origin);
        to.Byte(facts.IsSensitive ? (byte)1 : (byte)0);
        foreach (var list in new[] { facts.Habitats, facts.Cells, facts.LookAlikes, facts.Parents, facts.Members, facts.KeyMarks }) to.Texts(list);
        to.Number(facts.ElevationFrom);
        to.Number(facts.ElevationTo);
        to.Count(facts.Phenology.Count);
        foreach (var span in facts.Phenology)
        {
            to.Byte((byte)span.Phase);
            to.Byte((byte)span.From);
            to.Byte((byte)span.To);
        }
    }

    private static Taxon ReadTaxon(Reader from)
    {
        var (id, name, authorship, rank, parent, family, common, note) = (from.Text(), from.Text(), from.Text(), from.Text(), from.Text(), from.Text(), from.Text(), from.Text());
        var cautions = new Caution[from.Count()];
        for (var i = 0; i < cautions.Length; i++) cautions[i] = (Caution)from.Byte();
        if (from.Byte() == 0) return new Taxon(id, name, authorship, rank, parent, family, common, cautions, note);
        var (synonyms, names) = (from.Texts(), from.Texts());
        var (meaning, form, establishment) = (from.Text(), from.Text(), from.Text());
        var (origin, sensitive) = ((Origin)from.Byte(), from.Byte() == 1);
        var (habitats, cells, alikes, parents, members, marks) = (from.Texts(), from.Texts(), from.Texts(), from.Texts(), from.Texts(), from.Texts());
        var (low, high) = (from.Number(), from.Number());
        var phenology = new PhaseSpan[from.Count()];
        for (var i = 0; i < phenology.Length; i++) phenology[i] = new PhaseSpan((Phenophase)from.Byte(), from.Byte(), from.Byte());
        return new Taxon(id, name, authorship, rank, parent, family, common, cautions, note,
            new TaxonFacts(synonyms, names, meaning, form, origin, establishment, sensitive, habitats, (int?)low, (int?)high, cells, alikes, parents, members, phenology, marks));
    }

    private static void WriteColumn(Writer to, CharacterColumn column)
    {
        var cells = column.Cells;
        to.Count(cells.Count);
        foreach (var cell in cells) to.Byte(cell.Applies ? (byte)1 : (byte)0);
        if (column.Character.IsQuantity)
        {
            WriteRanges(to, [.. cells.Select(c => c.Range)]);
            var hasShade = cells.Any(c => c.Shade is not null);
            to.Byte(hasShade ? (byte)1 : (byte)0);
            if (hasShade) WriteRanges(to, [.. cells.Select(c => c.Shade)]);
        }
        else
        {
            foreach (var cell in cells)
            {
                to.Count(cell.States.Count);
                foreach (var share in cell.States)
                {
                    to.Count(column.Character.IndexOf(share.State) + 1);
                    to.Number(share.Share);
                }
                to.Texts(cell.Misread ?? []);
            }
        }
        // Low bytes, then high ones where there are any: like stands beside like.
        foreach (var row in column.Of()) to.Byte((byte)row);
        if (cells.Count <= byte.MaxValue) return;
        foreach (var row in column.Of()) to.Byte((byte)(row >> 8));
    }

    private static CharacterColumn ReadColumn(Reader from, Character character, int rows)
    {
        var applies = new bool[from.Count()];
        var are = from.Take(applies.Length);
        for (var c = 0; c < applies.Length; c++) applies[c] = are[c] == 1;
        IReadOnlyList<CharacterDescription> cells;
        if (character.IsQuantity)
        {
            var ranges = ReadRanges(from, character.Quantity, applies.Length);
            cells = new PackedCells(character.Id, applies, ranges, from.Byte() == 1 ? ReadRanges(from, character.Quantity, applies.Length) : null);
        }
        else
        {
            var read = new CharacterDescription[applies.Length];
            for (var c = 0; c < read.Length; c++)
            {
                var states = new StateShare[from.Count()];
                for (var s = 0; s < states.Length; s++) states[s] = new StateShare(character.States[from.Count() - 1].Id, from.Number() ?? 0);
                var misread = from.Texts();
                read[c] = new CharacterDescription(character.Id, states, null, null, applies[c], misread.Length > 0 ? misread : null);
            }
            cells = read;
        }
        var of = new ushort[rows];
        var low = from.Take(rows);
        for (var t = 0; t < of.Length; t++) of[t] = low[t];
        if (cells.Count > byte.MaxValue)
        {
            var high = from.Take(rows);
            for (var t = 0; t < of.Length; t++) of[t] |= (ushort)(high[t] << 8);
        }
        return new CharacterColumn(character, cells, of, applies);
    }

    // All numbers of a column as whole ones of as many places as the finest has, four bytes each, so that they are taken as they stand; of
    // a column that doesn't fit, the eight bytes of each.
    private static void WriteRanges(Writer to, IReadOnlyList<QuantityRange?> ranges)
    {
        foreach (var range in ranges) to.Byte(range is null ? byte.MaxValue : (byte)range.Form);
        double?[] numbers = [.. ranges.SelectMany(r => r is null ? new double?[PackedRanges.Numbers] : [r.Low, r.High, r.LowExtreme, r.HighExtreme])];
        var places = Array.FindIndex(Tens, ten => Array.TrueForAll(numbers, n => n is not { } number || PackedRanges.Fits(number, ten)));
        to.Byte(places < 0 ? byte.MaxValue : (byte)places);
        foreach (var number in numbers)
        {
            if (places >= 0) to.Raw(unchecked((uint)(number is { } n ? (int)Math.Round(n * Tens[places]) : PackedRanges.Absent)));
            else to.Double(number ?? double.NaN);
        }
    }

    private static PackedRanges ReadRanges(Reader from, QuantityKind kind, int count)
    {
        var forms = from.Take(count).ToArray();
        var places = from.Byte();
        var length = count * PackedRanges.Numbers;
        return places == byte.MaxValue ? new PackedRanges(kind, forms, null, 1, MemoryMarshal.Cast<byte, double>(from.Take(length * sizeof(double))).ToArray())
            : new PackedRanges(kind, forms, MemoryMarshal.Cast<byte, int>(from.Take(length * sizeof(int))).ToArray(), Tens[places], null);
    }

    /// <summary>Ranges as plain numbers: a record for each of those of a large flora would take several times the room.</summary>
    private sealed class PackedRanges(QuantityKind kind, byte[] forms, int[]? scaled, double scale, double[]? plain)
    {
        public const int Numbers = 4;
        public const int Absent = int.MinValue;

        public static bool Fits(double number, double ten) => Math.Abs(number * ten) < int.MaxValue && (Math.Round(number * ten) / ten).Equals(number);

        public QuantityRange? this[int at] => forms[at] == byte.MaxValue ? null
            : new QuantityRange(kind, (RangeForm)forms[at], Number(at, 0) ?? 0, Number(at, 1) ?? 0, Number(at, 2), Number(at, 3));

        // A whole number over a power of ten is the nearest double to the decimal, as it was typed.
        private double? Number(int at, int n)
        {
            var place = at * Numbers + n;
            if (scaled is not null) return scaled[place] == Absent ? null : scaled[place] / scale;
            return double.IsNaN(plain![place]) ? null : plain[place];
        }
    }

    private sealed class PackedCells(string character, bool[] applies, PackedRanges ranges, PackedRanges? shade) : IReadOnlyList<CharacterDescription>
    {
        public int Count => applies.Length;

        public CharacterDescription this[int index] => new(character, [], ranges[index], shade?[index], applies[index]);

        public IEnumerator<CharacterDescription> GetEnumerator() => Enumerable.Range(0, Count).Select(i => this[i]).GetEnumerator();

        System.Collections.IEnumerator System.Collections.IEnumerable.GetEnumerator() => GetEnumerator();
    }

    private sealed class Writer
    {
        private readonly ArrayBufferWriter<byte> _to = new();
        private readonly Dictionary<string, int> _known = new(StringComparer.Ordinal);

        public List<string> Strings { get; } = [];

        public byte[] Written => _to.WrittenSpan.ToArray();

        public void Byte(byte value)
        {
            _to.GetSpan(1)[0] = value;
            _to.Advance(1);
        }

        public void Double(double value)
        {
            Span<byte> bytes = stackalloc byte[sizeof(double)];
            BinaryPrimitives.WriteDoubleLittleEndian(bytes, value);
            _to.Write(bytes);
        }

        public void Raw(uint value)
        {
            Span<byte> bytes = stackalloc byte[sizeof(uint)];
            BinaryPrimitives.WriteUInt32LittleEndian(bytes, value);
            _to.Write(bytes);
        }

        // Seven bits a byte, the low ones first.
        private void Whole(ulong value)
        {
            for (; value >= 0x80; value >>= 7) Byte((byte)(value | 0x80));
            Byte((byte)value);
        }

        public void Count(int value) => Whole((ulong)value);

        public void Bytes(byte[] value)
        {
            Count(value.Length);
            _to.Write(value);
        }

        public void Text(string value)
        {
            if (!_known.TryGetValue(value, out var at))
            {
                _known.Add(value, at = Strings.Count);
                Strings.Add(value);
            }
            Count(at);
        }

        public void Texts(IReadOnlyList<string> values)
        {
            Count(values.Count);
            foreach (var value in values) Text(value);
        }

        // 0: none; else the places and the decimal, or the eight bytes of what is none.
        public void Number(double? value)
        {
            if (value is not { } number)
            {
                Whole(0);
                return;
            }
            const double most = 1L << 45;
            for (var places = 0; places <= MostPlaces && number >= 0; places++)
            {
                var whole = Math.Round(number * Tens[places]);
                if (whole > most) break;
                if (!(whole / Tens[places]).Equals(number)) continue;
                Whole(((ulong)whole << 3 | (uint)places) + 1);
                return;
            }
            Whole(Plain + 1);
            Span<byte> bytes = stackalloc byte[sizeof(double)];
            BinaryPrimitives.WriteDoubleLittleEndian(bytes, number);
            _to.Write(bytes);
        }
    }

    private sealed class Reader(byte[] bytes)
    {
        private int _at;

        public string[] Strings { get; set; } = [];

        public byte Byte() => bytes[_at++];

        public uint Raw() => BinaryPrimitives.ReadUInt32LittleEndian(Take(sizeof(uint)));

        private ulong Whole()
        {
            ulong value = 0;
            for (var shift = 0; ; shift += 7)
            {
                if (shift > 63) throw new OverflowException("A number is too long.");
                var part = bytes[_at++];
                value |= (ulong)(part & 0x7F) << shift;
                if (part < 0x80) return value;
            }
        }

        // Nothing in a pack has more parts than the pack has bytes.
        public int Count() => Whole() is var value && value <= (ulong)bytes.Length ? (int)value : throw new OverflowException("A count is larger than the pack.");

        public ReadOnlySpan<byte> Take(int count)
        {
            var part = bytes.AsSpan(_at, count);
            _at += count;
            return part;
        }

        public ReadOnlySpan<byte> Bytes() => Take(Count());

        public string Text() => Strings[Count()];

        public string[] Texts()
        {
            var count = Count();
            if (count == 0) return [];
            var values = new string[count];
            for (var i = 0; i < count; i++) values[i] = Text();
            return values;
        }

        public double? Number()
        {
            var coded = Whole();
            if (coded == 0) return null;
            var places = (int)((coded - 1) & 7);
            return places == Plain ? BinaryPrimitives.ReadDoubleLittleEndian(Take(sizeof(double))) : ((coded - 1) >> 3) / Tens[places];
        }
    }
}
