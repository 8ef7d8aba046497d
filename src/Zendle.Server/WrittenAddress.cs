using Zendle.Connect.Fetch;
using Zendle.Core.Records;

namespace Zendle.Server;

/// <summary>An address that a person has written: one of the web that may be asked, or what is wrong with it.</summary>
internal static class WrittenAddress
{
    private const int Longest = 2_000;

    /// <summary>Reads it.</summary>
    /// <param name="written">What was written.</param>
    /// <param name="policy">What may be asked.</param>
    /// <param name="none">What to say when it is no address.</param>
    /// <param name="nothing">What did not happen then.</param>
    public static (Uri? Address, IResult? Fault) Read(string written, AddressPolicy policy, string none, string nothing)
    {
        if (written.Length > Longest || WebAddress.Of(written) is not { } address)
            return (null, Problems.Of(400, none, $"It begins with http:// or https://. {nothing}"));
        return policy.WhyNot(address) is { } whyNot ? (null, Problems.Of(400, whyNot, nothing)) : (address, null);
    }
}
