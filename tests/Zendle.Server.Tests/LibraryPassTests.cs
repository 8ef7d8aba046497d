using Zendle.Connect.Fetch;

namespace Zendle.Server.Tests;

/// <summary>What a library gave a person goes to its proxy alone, and which links of its pages are followed.</summary>
public sealed class LibraryPassTests
{
    private static readonly LibraryPass Pass = new(new("https://proxy.lib.example/login?url="), new([], "key"));

    [Theory]
    [InlineData("https://proxy.lib.example/anything", true)]
    [InlineData("https://PROXY.lib.example/anything", true)]
    [InlineData("https://www-publisher.proxy.lib.example/text.pdf", true)]
    [InlineData("http://proxy.lib.example/anything", false)]
    [InlineData("https://proxy.lib.example:8443/anything", false)]
    [InlineData("https://lib.example/anything", false)]
    [InlineData("https://evilproxy.lib.example/anything", false)]
    [InlineData("https://proxy.lib.example.evil.example/", false)]
    public void A_host_belongs_to_the_proxy_when_it_is_it_or_stands_under_it(string address, bool belongs) =>
        Assert.Equal(belongs, Pass.IsOfProxy(new(address)));

    [Fact]
    public void Hosts_that_are_numbers_have_none_under_them() =>
        Assert.False(new LibraryPass(new("http://10.0.0.1/p?url="), null).IsOfProxy(new("http://1.10.0.0.1/")));

    [Theory]
    [InlineData("https://proxy.lib.example/login?url=https%3A%2F%2Fa.example%2F1", true)]
    [InlineData("https://a-example.proxy.lib.example/1", true)]
    [InlineData("https://proxy.lib.example/help", false)]
    [InlineData("https://a.example/1", false)]
    public void With_a_proxy_links_through_it_lead_to_the_text(string link, bool leads) =>
        Assert.Equal(leads, (Pass with { Hosts = ["a.example"] }).Leads(new(link)));

    [Theory]
    [InlineData("https://a.example/1", true)]
    [InlineData("https://b.example/1", false)]
    public void Without_one_those_to_where_the_work_lies(string link, bool leads) =>
        Assert.Equal(leads, new LibraryPass(null, null) { Hosts = ["a.example"] }.Leads(new(link)));

    [Fact]
    public void An_address_is_escaped_behind_the_prefix() =>
        Assert.Equal(
            "https://proxy.lib.example/login?url=https%3A%2F%2Fa.example%2F1%3Fx%3D2%26y%3D3",
            Pass.Through(new("https://a.example/1?x=2&y=3"))!.AbsoluteUri
        );
}
