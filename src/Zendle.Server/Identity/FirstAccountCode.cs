using System.Security.Cryptography;
using System.Text;

namespace Zendle.Server.Identity;

/// <summary>
/// The one-time code that makes whoever brings it curator. It lives in memory and is printed at the start while there
/// is no account.
/// </summary>
internal sealed class FirstAccountCode
{
    private string? code = string.Join(
        '-',
        Enumerable.Range(0, 4).Select(_ => RandomNumberGenerator.GetString("ABCDEFGHJKMNPQRSTUVWXYZ23456789", 4))
    );

    public string Text => code ?? "";

    public bool Matches(string brought) =>
        code is not null
        && CryptographicOperations.FixedTimeEquals(
            Encoding.UTF8.GetBytes(code),
            Encoding.UTF8.GetBytes(brought.Trim().ToUpperInvariant())
        );

    public void Spend() => code = null;
}
