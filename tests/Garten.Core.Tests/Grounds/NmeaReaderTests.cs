using System.Globalization;
using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Grounds;

public sealed class NmeaReaderTests
{
    private static string Sentence(string between) =>
        string.Create(CultureInfo.InvariantCulture, $"${between}*{NmeaReader.Checksum(between):X2}");

    [Fact]
    public void APositionIsReadWithItsTimeAndError()
    {
        var reader = new NmeaReader();
        Assert.Null(reader.Read(Sentence("GPRMC,093012.00,A,5725.20000,N,01112.30000,W,0.5,0.0,200526,,")));
        Assert.Null(reader.Read(Sentence("GPGST,093012.00,,,,,3.0,4.0,6.0")));
        var fix = reader.Read(Sentence("GPGGA,093012.00,5725.20000,N,01112.30000,W,1,08,1.2,40.0,M,54.0,M,,") + "\r\n")!;
        Assert.Equal((57.42, -11.205, 5.0), (Math.Round(fix.Latitude, 6), Math.Round(fix.Longitude, 6), Math.Round(fix.AccuracyMetres, 6)));
        Assert.Equal(new DateTime(2026, 5, 20, 9, 30, 12, DateTimeKind.Utc), DateTime.UnixEpoch.AddSeconds(fix.Seconds));
        Assert.False(reader.IsLost);
        // Without a sentence of its errors the dilution says how good it is; any constellation counts.
        var next = reader.Read(Sentence("GNGGA,093013.00,5725.20000,S,01112.30000,E,1,08,1.2,40.0,M,54.0,M,,"))!;
        Assert.Equal(
            (-57.42, 11.205, 6.0),
            (Math.Round(next.Latitude, 6), Math.Round(next.Longitude, 6), Math.Round(next.AccuracyMetres, 6))
        );
    }

    [Fact]
    public void MidnightBeginsTheNextDay()
    {
        var reader = new NmeaReader();
        reader.Read(Sentence("GPRMC,235959.00,A,5725.20000,N,01112.30000,W,0.5,0.0,200526,,"));
        var before = reader.Read(Sentence("GPGGA,235959.00,5725.2,N,01112.3,W,1,08,1.2,40.0,M,54.0,M,,"))!;
        var after = reader.Read(Sentence("GPGGA,000001.00,5725.2,N,01112.3,W,1,08,1.2,40.0,M,54.0,M,,"))!;
        Assert.Equal(2, after.Seconds - before.Seconds);
    }

    [Theory]
    [InlineData("$GPGGA,093012.00,5725.2,N,01112.3,W,1,08,1.2,40.0,M,54.0,M,,*00")]
    [InlineData("$GPGGA,093012.00,5725.2,N,01112.3,W,1,08,1.2,40.0,M,54.0,M,,")]
    [InlineData("")]
    [InlineData("$")]
    [InlineData("*7F")]
    [InlineData("noise \u0000 noise")]
    public void WhatIsNoSentenceSaysNothing(string line)
    {
        var reader = new NmeaReader();
        Assert.Null(reader.Read(line));
        Assert.False(reader.IsLost);
    }

    [Theory]
    [InlineData("GPGGA,093012.00,,,,,0,02,,,M,,M,,")]
    [InlineData("GPGGA,093012.00,5725.2,N,01112.3,W,6,08,1.2,40.0,M,54.0,M,,")]
    [InlineData("GPGGA,093012.00,5765.2,N,01112.3,W,1,08,1.2,40.0,M,54.0,M,,")]
    [InlineData("GPGGA,253012.00,5725.2,N,01112.3,W,1,08,1.2,40.0,M,54.0,M,,")]
    [InlineData("GPGGA,093012.00,5725.2,Q,01112.3,W,1,08,1.2,40.0,M,54.0,M,,")]
    [InlineData("GPGGA,093012.00,5725.2,N,01112.3,W,1,08,0,40.0,M,54.0,M,,")]
    public void WithoutTheSkyOrWithoutSenseThereIsNoPosition(string between)
    {
        var reader = new NmeaReader();
        Assert.Null(reader.Read(Sentence(between)));
        Assert.True(reader.IsLost);
    }
}
