using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.DataProtection;

namespace Zendle.Server.Loans;

/// <summary>
/// What stands between Zendle and desks that nobody else may know: the codes of accounts there, and the addresses at which
/// single desks write to Zendle. An address names its desk in a way that only this installation can make or read.
/// </summary>
internal sealed class LoanSecrets(IDataProtectionProvider protection)
{
    /// <summary>Where messages of desks arrive, without the desk's own part.</summary>
    public const string Path = "/loan-messages";

    private readonly IDataProtector backs = protection.CreateProtector("loan desk address");
    private readonly IDataProtector codes = protection.CreateProtector("loan desk code");

    /// <summary>Where a desk writes to.</summary>
    /// <param name="at">Where this installation is reached.</param>
    /// <param name="desk">The desk.</param>
    public Uri Back(Uri at, int desk) =>
        new(at, $"{Path}/{backs.Protect(desk.ToString(CultureInfo.InvariantCulture))}");

    /// <summary>The desk that an address was made for; null for one that was not made here.</summary>
    public int? DeskOf(string token)
    {
        try
        {
            return int.Parse(backs.Unprotect(token), CultureInfo.InvariantCulture);
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    /// <summary>Encrypts the code of an account.</summary>
    public byte[] Keep(string code) => codes.Protect(Encoding.UTF8.GetBytes(code));

    /// <summary>The code of an account; null when there is none, or the installation's keys are others.</summary>
    public string? Open(byte[]? kept)
    {
        try
        {
            return kept is null ? null : Encoding.UTF8.GetString(codes.Unprotect(kept));
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
