using CsCheck;
using Zendle.Connect.Fetch;

namespace Zendle.Server.Tests;

/// <summary>The rules of hosts as RFC 9309 has them; its own examples among them.</summary>
public sealed class RobotsRulesTests
{
    private static bool Allows(string robots, string path, string program = "zendle") =>
        RobotsRules.Read(robots, program).Allows(new("https://host.example" + path));

    // RFC 9309, 5.1: three groups, of which each program has one.
    private const string Simple = """
        User-Agent: *
        Disallow: *.gif$
        Disallow: /example/
        Allow: /publications/

        User-Agent: foobot
        Disallow:/
        Allow:/example/page.html
        Allow:/example/allowed.gif

        User-Agent: barbot
        User-Agent: bazbot
        Disallow: /example/page.html

        User-Agent: quxbot
        """;

    [Theory]
    [InlineData("foobot", "/", false)]
    [InlineData("foobot", "/example/page.html", true)]
    [InlineData("foobot", "/example/allowed.gif", true)]
    [InlineData("barbot", "/example/page.html", false)]
    [InlineData("bazbot", "/example/page.html", false)]
    [InlineData("bazbot", "/example/other", true)]
    [InlineData("quxbot", "/example/page.html", true)]
    [InlineData("zendle", "/example/", false)]
    [InlineData("zendle", "/other/a.gif", false)]
    [InlineData("zendle", "/publications/a.gif", true)]
    [InlineData("zendle", "/other/a.gif?x", true)]
    [InlineData("zendle", "/other", true)]
    public void Each_program_has_its_group(string program, string path, bool isAllowed) =>
        Assert.Equal(isAllowed, Allows(Simple, path, program));

    [Theory]
    // RFC 9309, 5.2: the longest match decides.
    [InlineData(
        "User-Agent: *\nAllow: /example/page/\nDisallow: /example/page/disallowed.gif",
        "/example/page/disallow.gif",
        true
    )]
    [InlineData(
        "User-Agent: *\nAllow: /example/page/\nDisallow: /example/page/disallowed.gif",
        "/example/page/disallowed.gif",
        false
    )]
    [InlineData("User-Agent: *\nDisallow: /a\nAllow: /a", "/a", true)]
    [InlineData("User-Agent: Zendle/1.0\nDisallow: /", "/x", false)]
    [InlineData("user-agent: ZENDLE\nDISALLOW: /", "/x", false)]
    [InlineData("User-Agent: zendlebot\nDisallow: /", "/x", true)]
    [InlineData("User-Agent: *\nDisallow:", "/x", true)]
    [InlineData("User-Agent: *\nDisallow: / # all of it", "/x", false)]
    [InlineData("User-Agent: *\nDisallow: /", "/robots.txt", true)]
    [InlineData("User-Agent: *\nDisallow: /*/full$", "/a/full", false)]
    [InlineData("User-Agent: *\nDisallow: /*/full$", "/a/full.pdf", true)]
    [InlineData("User-Agent: *\nDisallow: /p/*.pdf", "/p/x.pdf?y", false)]
    [InlineData("User-Agent: *\nDisallow: /foo/bar/%62%61%7A", "/foo/bar/baz", false)]
    [InlineData("User-Agent: *\nDisallow: /caf\u00e9", "/caf%C3%A9/x", false)]
    [InlineData("Disallow: /", "/x", true)]
    [InlineData("\uFEFFUser-agent: *\r\nDisallow: /x\r\nSitemap: https://host.example/s", "/x", false)]
    [InlineData("<html>not found</html>", "/x", true)]
    [InlineData(
        "User-agent: a\nDisallow: /\nUser-agent: zendle\nCrawl-delay: 2\nUser-agent: b\nDisallow: /",
        "/x",
        true
    )]
    public void The_longest_rule_of_the_group_decides(string robots, string path, bool isAllowed) =>
        Assert.Equal(isAllowed, Allows(robots, path));

    [Theory]
    [InlineData("User-agent: *\nCrawl-delay: 1.5", 1.5)]
    [InlineData("User-agent: *\nCrawl-delay: 86400", 30)]
    [InlineData("User-agent: *\nCrawl-delay: -1", 0)]
    [InlineData("User-agent: *\nCrawl-delay: soon", 0)]
    [InlineData("User-agent: *\nCrawl-delay: 9e99", 0)]
    public void A_delay_is_kept_within_reason(string robots, double seconds) =>
        Assert.Equal(TimeSpan.FromSeconds(seconds), RobotsRules.Read(robots, "zendle").Delay);

    [Fact]
    public void No_file_breaks_the_reader() =>
        Gen.OneOf(
                "User-agent:",
                "*",
                "zendle",
                "\n",
                "Disallow:",
                "Allow: ",
                "/",
                "a",
                "$",
                "%",
                "%2",
                "#",
                ":",
                "\u00e9",
                "*"
            )
            .Array[0, 40]
            .Sample(
                parts =>
                {
                    var rules = RobotsRules.Read(string.Concat(parts), "zendle");
                    // What is allowed or not is one or the other, for any address.
                    _ = rules.Allows(new("https://host.example/a/b?c=%20é"));
                    Assert.True(rules.Allows(new("https://host.example/robots.txt")));
                },
                iter: 2_000
            );

    [Fact]
    public void A_pattern_without_marks_is_a_beginning() =>
        Gen.Select(Gen.Char["ab/"].Array[1, 6], Gen.Char["ab/"].Array[0, 8])
            .Sample(
                (pattern, path) =>
                {
                    var (rule, at) = ("/" + new string(pattern), "/x/" + new string(path));
                    Assert.Equal(
                        !at.StartsWith(rule, StringComparison.Ordinal),
                        Allows($"User-agent: *\nDisallow: {rule}", at)
                    );
                    Assert.Equal(
                        !at.StartsWith("/x" + rule, StringComparison.Ordinal),
                        Allows($"User-agent: *\nDisallow: /x{rule}", at)
                    );
                },
                iter: 2_000
            );
}
