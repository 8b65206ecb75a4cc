namespace Garten.Formats;

/// <summary>More attributes at one element, or another encoding, than a table or an SDD document has.</summary>
internal sealed class XmlGuardException(string what) : IOException(what);

/// <summary>
/// Passes XML on and counts the attributes of each element on the way: the parser compares each with all others of its element, and a
/// million of them keep it busy for minutes before it hands out anything. Understands UTF-8 and what else extends ASCII; UTF-16 and UTF-32
/// are refused.
/// </summary>
internal sealed class XmlGuard(Stream inner, int mostAttributes) : Stream
{
    private const string Comment = "!--";
    private const string Characters = "![CDATA[";

    private enum Place
    {
        Text,
        Opening,
        Tag,
        Quoted,
        Comment,
        Characters,
        Instruction,
    }

    private Place _place;
    private byte _quote;
    private int _attributes;
    private long _seen;
    private readonly List<byte> _opening = [];
    private (byte Last, byte Before) _run;

    public override int Read(Span<byte> buffer)
    {
        var count = inner.Read(buffer);
        foreach (var it in buffer[..count])
            Look(it);
        return count;
    }

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    private void Look(byte it)
    {
        // A byte order mark or a zero among the first four: two or four bytes to a character.
        if (_seen++ < 4 && it is 0 or 0xFE or 0xFF)
            throw new XmlGuardException("The document isn't in UTF-8. Save it in that encoding.");
        switch (_place)
        {
            case Place.Text:
                if (it == '<')
                    (_place, _attributes) = (Place.Opening, 0);
                if (it == '<')
                    _opening.Clear();
                break;
            case Place.Opening:
                Open(it);
                break;
            case Place.Tag:
                InTag(it);
                break;
            case Place.Quoted:
                if (it == _quote)
                    _place = Place.Tag;
                break;
            case Place.Comment:
                Close(it, (byte)'-', (byte)'-');
                break;
            case Place.Characters:
                Close(it, (byte)']', (byte)']');
                break;
            case Place.Instruction:
                Close(it, (byte)'?', null);
                break;
        }
    }

    // What follows the bracket tells what it opens.
    private void Open(byte it)
    {
        _opening.Add(it);
        if (it == '?')
            Enter(Place.Instruction);
        else if (_opening[0] != '!')
            Enter(Place.Tag, it);
        else if (Begins(Comment))
            Enter(Place.Comment);
        else if (Begins(Characters))
            Enter(Place.Characters);
        else if (_opening.Count >= Characters.Length)
            Enter(Place.Tag, it);
    }

    private bool Begins(string text) => _opening.Count == text.Length && _opening.Select(b => (char)b).SequenceEqual(text);

    private void Enter(Place place, byte? first = null)
    {
        _place = place;
        _run = default;
        if (first is { } it)
            InTag(it);
    }

    private void InTag(byte it)
    {
        if (it == '>')
            _place = Place.Text;
        else if (it is (byte)'"' or (byte)'\'')
            (_place, _quote) = (Place.Quoted, it);
        else if (it == '=' && ++_attributes > mostAttributes)
            throw new XmlGuardException($"An element has more than {mostAttributes} attributes.");
    }

    private void Close(byte it, byte last, byte? before)
    {
        if (it == '>' && _run.Last == last && (before is null || _run.Before == before))
            _place = Place.Text;
        _run = (it, _run.Last);
    }

    public override bool CanRead => true;

    public override bool CanSeek => false;

    public override bool CanWrite => false;

    public override long Length => throw new NotSupportedException();

    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override void Flush()
    {
        // Nothing is written.
    }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    protected override void Dispose(bool disposing)
    {
        if (disposing)
            inner.Dispose();
        base.Dispose(disposing);
    }
}
