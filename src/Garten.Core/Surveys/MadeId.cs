using System.Security.Cryptography;
using System.Text;

namespace Garten.Core.Surveys;

/// <summary>Ids of what has none of its own: made of what it is, and so the same in every export.</summary>
public static class MadeId
{
    /// <summary>The id of a text (SHA-256, as UUID version 8, RFC 9562: made by a rule of one's own).</summary>
    public static Guid Of(string what)
    {
        ArgumentNullException.ThrowIfNull(what);
        var bytes = SHA256.HashData(Encoding.UTF8.GetBytes(what)).AsSpan(0, 16);
        bytes[6] = (byte)(bytes[6] & 0x0F | 0x80);
        bytes[8] = (byte)(bytes[8] & 0x3F | 0x80);
        return new Guid(bytes, bigEndian: true);
    }
}
