using Microsoft.AspNetCore.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Identity;

/// <summary>
/// Refuses passwords that are guessed first: known ones, runs of the keyboard or the alphabet, few letters over and
/// over, the name itself. Length counts, not kinds of characters (NIST SP 800-63B, 5.1.1.2).
/// </summary>
internal sealed class PasswordRules : IPasswordValidator<Account>
{
    /// <summary>Longest password, in characters. Longer ones would only cost time to hash.</summary>
    public const int Longest = 200;

    private const int FewestDifferent = 5;

    private static readonly string[] Runs =
    [
        "01234567890",
        "abcdefghijklmnopqrstuvwxyz",
        "qwertyuiop",
        "asdfghjkl",
        "zxcvbnm",
        "qwertzuiop",
        "azertyuiop",
        "1qaz2wsx3edc4rfv",
    ];

    // Bare of digits and signs; the commonest roots of leaked passwords, and our own name.
    private static readonly HashSet<string> Known = new(StringComparer.Ordinal)
    {
        "password",
        "passwort",
        "passw",
        "pass",
        "letmein",
        "welcome",
        "admin",
        "administrator",
        "iloveyou",
        "monkey",
        "dragon",
        "football",
        "baseball",
        "sunshine",
        "princess",
        "secret",
        "login",
        "changeme",
        "default",
        "zendle",
        "master",
        "superman",
        "trustno",
        "whatever",
        "starwars",
        "hello",
        "freedom",
        "test",
        "testtest",
        "user",
        "guest",
        "root",
        "qwerty",
        "abc",
        "motdepasse",
    };

    /// <summary>Why a password is refused, in a sentence; null when it is taken.</summary>
    public static string? WhyNot(string? name, string? password)
    {
        if (password is null || password.Length < 10)
            return "The password needs at least 10 characters.";
        if (password.Length > Longest)
            return $"The password is longer than {Longest} characters.";
        var plain = password.ToLowerInvariant();
        var bare = string.Concat(plain.Where(char.IsLetter));
        var isTrivial =
            plain.Distinct().Count() < FewestDifferent
            || Repeats(plain)
            || Runs.Any(r => IsRun(plain, r))
            || Known.Contains(bare)
            || IsKnownTwice(bare)
            || (
                name?.Trim().ToLowerInvariant() is { Length: > 2 } own
                && string.Concat(plain.Replace(own, "", StringComparison.Ordinal).Where(char.IsLetter)).Length < 4
                && plain.Contains(own, StringComparison.Ordinal)
            );
        return isTrivial
            ? "This password is one of the first that attackers try. Three or four unrelated words make a good one."
            : null;
    }

    /// <summary>A short piece over and over: "abcabcabca".</summary>
    private static bool Repeats(string text) =>
        Enumerable
            .Range(1, Math.Max(1, text.Length / 2))
            .Any(n => Enumerable.Range(n, text.Length - n).All(i => text[i] == text[i - n]));

    /// <summary>Mostly one run, forward or backward.</summary>
    private static bool IsRun(string text, string run)
    {
        var (backward, longest) = (string.Concat(run.Reverse()), 0);
        for (var i = 0; i < text.Length; i++)
        for (
            var n = longest + 1;
            i + n <= text.Length
                && (
                    run.Contains(text.Substring(i, n), StringComparison.Ordinal)
                    || backward.Contains(text.Substring(i, n), StringComparison.Ordinal)
                );
            n++
        )
            longest = n;
        return longest >= 4 && longest * 3 >= text.Length * 2;
    }

    private static bool IsKnownTwice(string bare) =>
        Known.Any(k =>
            bare.Length > k.Length && bare.StartsWith(k, StringComparison.Ordinal) && Known.Contains(bare[k.Length..])
        );

    /// <inheritdoc/>
    public Task<IdentityResult> ValidateAsync(UserManager<Account> manager, Account user, string? password) =>
        Task.FromResult(
            WhyNot(user.UserName, password) is { } no
                ? IdentityResult.Failed(new IdentityError { Code = "Trivial", Description = no })
                : IdentityResult.Success
        );
}
