using System.Buffers;
using System.Buffers.Binary;
using System.Text;

namespace Garten.Core.Packs;

/// <summary>How numbers are kept: as decimals of up to so many places where that gives them back exactly.</summary>
internal static class PackNumber
{
    public const int MostPlaces = 6;

    /// <summary>Stands for places where the eight bytes of the number follow.</summary>
    public const int Plain = 7;

    public static readonly double[] Tens = [1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6];
}

/// <summary>Puts a pack's parts into bytes; strings once each.</summary>
internal sealed class PackWriter
{
    private readonly ArrayBufferWriter<byte> _to = new();
    private readonly Dictionary<string, int> _known;

    public PackWriter()
        : this(new(StringComparer.Ordinal), []) { }

    private PackWriter(Dictionary<string, int> known, List<string> strings) => (_known, Strings) = (known, strings);

    public List<string> Strings { get; }

    /// <summary>Writes something as a part that can be passed over.</summary>
    public void Part(Action<PackWriter> write)
    {
        var part = new PackWriter(_known, Strings);
        write(part);
        Bytes(part.Written);
    }

    public byte[] Written => _to.WrittenSpan.ToArray();

    /// <summary>What was written, behind a head that says what it is and has its strings.</summary>
    public byte[] WithHead(uint magic, byte form)
    {
        var head = new PackWriter();
        head.Raw(magic);
        head.Byte(form);
        head.Count(Strings.Count);
        foreach (var text in Strings)
            head.Bytes(Encoding.UTF8.GetBytes(text));
        return [.. head.Written, .. Written];
    }

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

    public void Pair(ushort value)
    {
        Span<byte> bytes = stackalloc byte[sizeof(ushort)];
        BinaryPrimitives.WriteUInt16LittleEndian(bytes, value);
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
        for (; value >= 0x80; value >>= 7)
            Byte((byte)(value | 0x80));
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

    public void Maybe(string? value)
    {
        Flag(value is not null);
        if (value is not null)
            Text(value);
    }

    public void Flag(bool value) => Byte(value ? (byte)1 : (byte)0);

    public void Many<T>(IReadOnlyList<T> all, Action<T> one)
    {
        Count(all.Count);
        foreach (var it in all)
            one(it);
    }

    public void Texts(IReadOnlyList<string> values)
    {
        Count(values.Count);
        foreach (var value in values)
            Text(value);
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
        for (var places = 0; places <= PackNumber.MostPlaces && number >= 0; places++)
        {
            var whole = Math.Round(number * PackNumber.Tens[places]);
            if (whole > most)
                break;
            if (!(whole / PackNumber.Tens[places]).Equals(number))
                continue;
            Whole(((ulong)whole << 3 | (uint)places) + 1);
            return;
        }
        Whole(PackNumber.Plain + 1);
        Span<byte> bytes = stackalloc byte[sizeof(double)];
        BinaryPrimitives.WriteDoubleLittleEndian(bytes, number);
        _to.Write(bytes);
    }
}

/// <summary>The strings of a pack, each decoded when it is first wanted: of most keys nobody reads a word.</summary>
internal sealed class PackStrings(byte[] bytes, (int At, int Length)[] places)
{
    public static readonly PackStrings None = new([], []);

    private readonly string?[] _decoded = new string?[places.Length];

    public string At(int index)
    {
        if (_decoded[index] is { } known)
            return known;
        var (at, length) = places[index];
        return _decoded[index] = Encoding.UTF8.GetString(bytes, at, length);
    }
}

/// <summary>Takes a pack's parts out of bytes.</summary>
internal sealed class PackReader(byte[] bytes)
{
    private int _at;

    private PackStrings _strings = PackStrings.None;

    /// <summary>Reads the head of what has one form alone.</summary>
    /// <exception cref="PackFormatException">It is something else.</exception>
    public void TakeHead(uint magic, byte form, string name)
    {
        if (Raw() != magic)
            throw new PackFormatException($"This is no {name}.");
        if (Byte() != form)
            throw new PackFormatException($"This is no {name} of this version of the program.");
        TakeStrings();
    }

    /// <summary>Reads the strings that all others name by their place.</summary>
    public void TakeStrings()
    {
        var places = new (int At, int Length)[Count()];
        for (var i = 0; i < places.Length; i++)
        {
            var length = Count();
            places[i] = (_at, length);
            Take(length);
        }
        _strings = new PackStrings(bytes, places);
    }

    /// <summary>Reads something; what is cut off or broken is said in one way.</summary>
    public static T Whole<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception error) when (error is IndexOutOfRangeException or ArgumentException or OverflowException or OutOfMemoryException)
        {
            throw new PackFormatException($"It is cut off or broken: {error.Message}");
        }
    }

    public T[] Many<T>(Func<T> one)
    {
        var count = Count();
        if (count == 0)
            return [];
        var all = new T[count];
        for (var i = 0; i < count; i++)
            all[i] = one();
        return all;
    }

    public string? Maybe() => Byte() == 0 ? null : Text();

    public bool Flag() => Byte() == 1;

    public byte Byte() => bytes[_at++];

    public uint Raw() => BinaryPrimitives.ReadUInt32LittleEndian(Take(sizeof(uint)));

    private ulong Whole()
    {
        ulong value = 0;
        for (var shift = 0; ; shift += 7)
        {
            if (shift > 63)
                throw new OverflowException("A number is too long.");
            var part = bytes[_at++];
            value |= (ulong)(part & 0x7F) << shift;
            if (part < 0x80)
                return value;
        }
    }

    // Nothing in a pack has more parts than the pack has bytes.
    public int Count() =>
        Whole() is var value && value <= (ulong)bytes.Length ? (int)value : throw new OverflowException("A count is larger than the pack.");

    public T OneOf<T>()
        where T : struct, Enum
    {
        var value = Count();
        return value < Words<T>.Count ? (T)Enum.ToObject(typeof(T), value) : throw new OverflowException("There is no such word.");
    }

    // Counting them takes an interpreted core longer than reading what they stand in.
    private static class Words<T>
        where T : struct, Enum
    {
        public static readonly int Count = Enum.GetValues<T>().Length;
    }

    /// <summary>A part that is read later, or not at all.</summary>
    public PackReader Part()
    {
        var length = Count();
        var part = new PackReader(bytes) { _at = _at, _strings = _strings };
        Take(length);
        return part;
    }

    public ReadOnlySpan<byte> Take(int count)
    {
        var part = bytes.AsSpan(_at, count);
        _at += count;
        return part;
    }

    public ReadOnlySpan<byte> Bytes() => Take(Count());

    public string Text() => _strings.At(Count());

    /// <summary>Whether nothing follows.</summary>
    public bool IsAtEnd => _at >= bytes.Length;

    public string[] Texts()
    {
        var count = Count();
        if (count == 0)
            return [];
        var values = new string[count];
        for (var i = 0; i < count; i++)
            values[i] = Text();
        return values;
    }

    public double? Number()
    {
        var coded = Whole();
        if (coded == 0)
            return null;
        var places = (int)((coded - 1) & 7);
        return places == PackNumber.Plain
            ? BinaryPrimitives.ReadDoubleLittleEndian(Take(sizeof(double)))
            : ((coded - 1) >> 3) / PackNumber.Tens[places];
    }
}
