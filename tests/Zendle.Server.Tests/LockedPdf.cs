using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Zendle.Server.Tests;

/// <summary>
/// An honest document of one page, encrypted as ISO 32000-1, 7.6 has it for the oldest readers (revision 2, 40 bits):
/// with a password for its owner, and one for readers or none.
/// </summary>
internal static class LockedPdf
{
    private static readonly byte[] Pad = Convert.FromHexString(
        "28BF4E5E4E758A4164004E56FFFA01082E2E00B6D0683E802F0CA9FE6453697A"
    );
    private static readonly byte[] Id = Convert.FromHexString("00112233445566778899AABBCCDDEEFF");
    private const int Permissions = -64;

    public static byte[] With(string owner, string user)
    {
#pragma warning disable CA5351 // what the format prescribes
        // Algorithm 3.3: the owner's entry; 3.2: the key; 3.4: the user's entry.
        var o = Rc4(MD5.HashData(Padded(owner))[..5], Padded(user));
        var key = MD5.HashData([.. Padded(user), .. o, .. BitConverter.GetBytes(Permissions), .. Id])[..5];
        var u = Rc4(key, Pad);
        // Algorithm 3.1: the key of object 4.
        var stream = Rc4(
            MD5.HashData([.. key, 4, 0, 0, 0, 0])[..10],
            Encoding.Latin1.GetBytes(
                "BT /F1 12 Tf 40 750 Td 14 TL "
                    + string.Concat(
                        Enumerable
                            .Range(1, 12)
                            .Select(i => $"(A line of text about moths under lamps, number {i}.) Tj T* ")
                    )
                    + "ET"
            )
        );
#pragma warning restore CA5351
        var plain = HostilePdfs.Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
                null
            ),
            ("<< /Length LENGTH >>", stream),
            ("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>", null),
            (
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"<< /Filter /Standard /V 1 /R 2 /Length 40 /P {Permissions} /O "
                        + $"<{Convert.ToHexString(o)}> /U <{Convert.ToHexString(u)}> >>"
                ),
                null
            )
        );
        return Encoding.Latin1.GetBytes(
            Encoding
                .Latin1.GetString(plain)
                .Replace(
                    "/Root 1 0 R >>",
                    $"/Root 1 0 R /Encrypt 6 0 R /ID [<{Convert.ToHexString(Id)}> <{Convert.ToHexString(Id)}>] >>",
                    StringComparison.Ordinal
                )
        );
    }

    private static byte[] Padded(string password) => [.. Encoding.Latin1.GetBytes(password).Concat(Pad).Take(32)];

    private static byte[] Rc4(byte[] key, byte[] data)
    {
        var s = Enumerable.Range(0, 256).Select(i => (byte)i).ToArray();
        for (int i = 0, j = 0; i < 256; i++)
        {
            j = (j + s[i] + key[i % key.Length]) & 255;
            (s[i], s[j]) = (s[j], s[i]);
        }
        var result = new byte[data.Length];
        for (int n = 0, i = 0, j = 0; n < data.Length; n++)
        {
            i = (i + 1) & 255;
            j = (j + s[i]) & 255;
            (s[i], s[j]) = (s[j], s[i]);
            result[n] = (byte)(data[n] ^ s[(s[i] + s[j]) & 255]);
        }
        return result;
    }
}
