using QRCoder;

namespace Garten.Server.Hosting;

/// <summary>Codes that a camera reads.</summary>
internal static class QrPicture
{
    // Pixels of each dot of the picture, which is drawn as large as a page wants it.
    private const int Dot = 4;

    /// <summary>A code that leads to an address, as SVG.</summary>
    public static string Of(string address)
    {
        using var qr = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
        using var picture = new SvgQRCode(qr);
        return picture.GetGraphic(Dot);
    }
}
