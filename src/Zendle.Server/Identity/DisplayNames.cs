using Microsoft.EntityFrameworkCore;
using Zendle.Store.Made;

namespace Zendle.Server.Identity;

/// <summary>What the holders of accounts are called on screen.</summary>
internal static class DisplayNames
{
    /// <summary>The names of some accounts, by account; of one that is gone none.</summary>
    public static Task<Dictionary<string, string>> DisplayNamesOf(
        this ZendleContext made,
        IEnumerable<string> accounts,
        CancellationToken cancel
    )
    {
        string[] ids = [.. accounts.Distinct()];
        return made.Users.Where(u => ids.Contains(u.Id)).ToDictionaryAsync(u => u.Id, u => u.DisplayName, cancel);
    }
}
