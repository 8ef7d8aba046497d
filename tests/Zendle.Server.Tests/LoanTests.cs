using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Requests to other libraries: asked, answered by the outside's clock, delivered and proven; refused, taken back, asked again
/// elsewhere; and desks that do everything wrong.
/// </summary>
public sealed class LoanTests(Lending world) : IClassFixture<Lending>, IAsyncLifetime
{
    private const string Cheap = "Voorland lending desk",
        Dear = "Harrow Sound exchange";

    private Visitor Ann => world.Ann;

    public async ValueTask InitializeAsync()
    {
        foreach (var desk in new[] { "voorland", "harrow" })
            await world.Fault(desk, "none");
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    /// <summary>Numbers of works in the outside's world that both desks supply.</summary>
    private static bool IsHad(int number) => number % 4 != 3 && number % 9 != 8;

    private async Task<JsonNode> Drafts(int review, params int[] works) =>
        await Ann.Ok("POST", $"/api/reviews/{review}/loans/drafts", new { works });

    private static int Desk(JsonNode drafts, string name) =>
        drafts.List("desks").Single(d => d.Text("name") == name).Int("id");

    private async Task<JsonNode> Ask(
        int review,
        int work,
        string desk = Cheap,
        decimal? mostCost = 20,
        int? previous = null,
        Action<JsonObject>? change = null,
        Visitor? by = null
    )
    {
        var drafts = await (by ?? Ann).Ok(
            "POST",
            $"/api/reviews/{review}/loans/drafts",
            new { works = new[] { work } }
        );
        var fields = drafts.List("drafts").Single()["fields"]!.DeepClone().AsObject();
        change?.Invoke(fields);
        return await (by ?? Ann).Ok(
            "POST",
            $"/api/reviews/{review}/loans",
            new
            {
                requests = new[]
                {
                    new
                    {
                        workId = work,
                        deskId = Desk(drafts, desk),
                        fields,
                        mostCost,
                        neededBy = (string?)null,
                        email = (string?)null,
                        previous,
                    },
                },
            }
        );
    }

    private async Task<JsonNode> Loan(int review, int work) =>
        (await Ann.Get($"/api/reviews/{review}/loans")).List("loans").First(l => l.Int("workId") == work);

    private static string Status(JsonNode loan) => loan["state"]!.Text("status");

    private async Task<JsonNode> Until(int review, int work, Func<JsonNode, bool> holds, string what)
    {
        JsonNode? loan = null;
        for (var i = 0; i < 400; i++)
        {
            loan = await Loan(review, work);
            if (holds(loan))
                return loan;
            await Task.Delay(50);
        }
        throw new TimeoutException($"{what} did not come in twenty seconds: {loan!.ToJsonString()}");
    }

    private Task<JsonNode> Until(int review, int work, string status) =>
        Until(review, work, l => Status(l) == status, status);

    private async Task<(int Review, int Work)> Asked(
        string type = "article",
        Func<int, bool>? isWanted = null,
        string desk = Cheap,
        decimal? mostCost = 20
    )
    {
        var review = await Ann.Review();
        var work = await world.Work(review, type, isWanted ?? IsHad);
        Assert.Equal(1, (await Ask(review, work, desk, mostCost)).Int("asked"));
        return (review, work);
    }

    private async Task<int> Act(int review, JsonNode loan, string act, Visitor? by = null) =>
        (await (by ?? Ann).Send("POST", $"/api/reviews/{review}/loans/{loan.Int("id")}", new { act })).Status;

    private async Task<JsonNode> Row(int review, int work) =>
        (await Ann.Get($"/api/reviews/{review}/gather")).List("works").Single(w => w.Int("workId") == work);

    [Fact]
    public async Task A_copy_is_asked_for_comes_days_later_and_is_proven()
    {
        var review = await Ann.Review();
        var work = await world.Work(review, "article", IsHad);
        var drafts = await Drafts(review, work);
        var desk = drafts.List("desks").First();
        // What it costs and how many requests one may have is said before anything is sent.
        Assert.Equal(
            (Cheap, 4.5m, "EUR", 3, 20),
            (
                desk.Text("name"),
                desk["copyCost"]!.GetValue<decimal>(),
                desk.Text("currency"),
                desk.Int("days"),
                desk.Int("mostOpen")
            )
        );
        var fields = drafts.List("drafts").Single()["fields"]!;
        var detail = await Ann.Get($"/api/reviews/{review}/works/{work}");
        Assert.Equal(detail["title"]!.Text("text"), fields.Text("title"));
        Assert.Equal(detail.Text("doi"), fields.Text("doi"));
        Assert.Equal(("Copy", "Article"), (fields.Text("service"), fields.Text("kind")));
        Assert.DoesNotContain(drafts.List("drafts").Single().List("faults"), f => f["stops"]!.GetValue<bool>());

        await Ask(review, work);
        var loan = await Until(review, work, "RequestReceived");
        Assert.Equal("ByLoan", (await Row(review, work)).Text("state"));
        Assert.Equal("RequestReceived", (await world.AtDesk(loan.Text("number"))).Text("status"));

        await world.Outside.Move(1);
        loan = await Until(review, work, "WillSupply");
        Assert.NotNull(loan["state"]!["expectedOn"]);

        await world.Outside.Move(3);
        loan = await Until(
            review,
            work,
            l => l.Text("delivery") == "Got" && l["state"]!["isReceived"]!.GetValue<bool>(),
            "the copy"
        );
        Assert.Equal("CopyCompleted", Status(loan));
        var row = await Row(review, work);
        Assert.Equal("InHand", row.Text("state"));
        Assert.Equal("loan", row.List("attempts").Last().Text("route"));
        Assert.Equal("Verified", row.List("texts").Single().Text("verdict"));

        var counts = await Ann.Get($"/api/reviews/{review}/report/loans");
        Assert.Equal(
            (1, 1, 1, 0, 0),
            (counts.Int("asked"), counts.Int("works"), counts.Int("supplied"), counts.Int("inVain"), counts.Int("open"))
        );
        Assert.Equal(4.5m, counts.List("costs").Single()["amount"]!.GetValue<decimal>());
        // Counted with the texts, by its route.
        var texts = await Ann.Get($"/api/reviews/{review}/report/texts");
        Assert.Equal(
            (1, 1),
            (texts.Int("got"), texts.List("byRoute").Single(t => t.Text("word") == "loan").Int("count"))
        );
    }

    [Fact]
    public async Task What_one_library_does_not_hold_is_asked_for_at_another()
    {
        var (review, work) = await Asked(isWanted: n => n % 4 == 3 && n % 9 != 8);
        await Until(review, work, "RequestReceived");
        await world.Outside.Move(1);
        var first = await Until(review, work, "Unfilled");
        Assert.Equal("NotHeld", first["state"]!.Text("why"));
        Assert.Equal("NotFound", (await Row(review, work)).Text("state"));
        var drafts = await Drafts(review, work);
        Assert.Equal(
            [Desk(drafts, Cheap)],
            drafts.List("drafts").Single()["asked"]!.AsArray().Select(d => d!.GetValue<int>())
        );

        await Ask(review, work, Dear);
        await Until(review, work, "RequestReceived");
        await world.Outside.Move(6);
        await Until(review, work, l => l.Text("delivery") == "Got", "the copy of the other library");
        var counts = await Ann.Get($"/api/reviews/{review}/report/loans");
        Assert.Equal(
            (2, 1, 1, 1),
            (counts.Int("asked"), counts.Int("works"), counts.Int("supplied"), counts.Int("inVain"))
        );
        Assert.Equal("NotHeld", counts.List("unfilled").Single().Text("why"));
    }

    [Fact]
    public async Task What_costs_more_than_was_allowed_is_offered_and_asked_for_again()
    {
        var (review, work) = await Asked(desk: Dear, mostCost: 5);
        await Until(review, work, "RequestReceived");
        await world.Outside.Move(1);
        var loan = await Until(review, work, "RetryPossible");
        Assert.Equal("CostExceedsMaxCost", loan["state"]!.Text("why"));
        Assert.Equal(12m, loan["state"]!["offer"]!["amount"]!.GetValue<decimal>());

        await Ask(review, work, Dear, mostCost: 12, previous: loan.Int("id"));
        var again = await Until(review, work, "RequestReceived");
        Assert.NotEqual(loan.Text("number"), again.Text("number"));
        await world.Outside.Move(1);
        await Until(review, work, "WillSupply");
    }

    [Fact]
    public async Task A_request_is_taken_back_while_the_library_has_not_begun()
    {
        var (review, work) = await Asked();
        var loan = await Until(review, work, "RequestReceived");
        Assert.Equal(204, await Act(review, loan, "Cancel"));
        loan = await Until(review, work, "Cancelled");
        Assert.Equal("Cancelled", (await world.AtDesk(loan.Text("number"))).Text("status"));
        Assert.Equal(409, await Act(review, loan, "Cancel"));
        Assert.Equal("NotFound", (await Row(review, work)).Text("state"));
    }

    [Fact]
    public async Task A_request_that_is_being_made_ready_cannot_be_taken_back_and_goes_on()
    {
        var (review, work) = await Asked();
        await Until(review, work, "RequestReceived");
        await world.Outside.Move(1);
        var loan = await Until(review, work, "WillSupply");
        Assert.Equal(204, await Act(review, loan, "Cancel"));
        loan = await Until(review, work, l => l["state"]!["isCancelDenied"]!.GetValue<bool>(), "the no");
        Assert.Equal("WillSupply", Status(loan));
        Assert.Equal("It is being made ready already.", loan["state"]!.Text("note"));
        await world.Outside.Move(3);
        await Until(review, work, l => l.Text("delivery") == "Got", "the copy");
    }

    [Fact]
    public async Task A_desk_that_is_down_is_asked_when_it_is_up_again_and_what_was_withdrawn_never_reaches_it()
    {
        await world.Fault("voorland", "down");
        var (review, work) = await Asked();
        var other = await world.Work(review, "article", IsHad);
        await Ask(review, other);
        await Until(review, work, l => l["trouble"] is not null, "the trouble");
        await Until(review, other, l => l["trouble"] is not null, "the other's trouble");
        Assert.Equal("Unsent", Status(await Loan(review, work)));
        // The moment may be that of a try.
        var status = 0;
        JsonNode withdrawn;
        do
        {
            withdrawn = await Loan(review, other);
            status = await Act(review, withdrawn, "Cancel");
        } while (status == 409);
        Assert.Equal(204, status);
        withdrawn = await Until(review, other, l => Status(l) == "Cancelled", "the withdrawal");

        await world.Fault("voorland", "none");
        await Until(review, work, "RequestReceived");
        await Assert.ThrowsAnyAsync<InvalidOperationException>(() => world.AtDesk(withdrawn.Text("number")));
    }

    [Theory]
    [InlineData("twice")]
    [InlineData("reversed")]
    [InlineData("malformed")]
    [InlineData("unknown")]
    public async Task Messages_that_come_twice_late_broken_or_about_nothing_change_nothing(string fault)
    {
        await world.Fault("voorland", fault);
        var (review, work) = await Asked();
        await Until(review, work, "RequestReceived");
        // All that is left is said at once.
        await world.Outside.Move(5);
        var loan = await Until(review, work, l => l.Text("delivery") == "Got", "the copy");
        Assert.Equal("CopyCompleted", Status(loan));
        Assert.Equal(
            ["RequestReceived", "WillSupply", "CopyCompleted"],
            loan.List("events")
                .Where(e => e.Text("kind") == "Told")
                .Select(e => e["message"]!.Text("status"))
                .OrderBy(s => Array.IndexOf(["RequestReceived", "WillSupply", "CopyCompleted"], s))
        );
    }

    [Fact]
    public async Task A_wrong_copy_is_refused_and_another_fetch_takes_the_right_one()
    {
        var (review, work) = await Asked();
        await Until(review, work, "RequestReceived");
        await world.Fault("voorland", "wrong");
        await world.Outside.Move(5);
        var loan = await Until(review, work, l => l.Text("delivery") == "Failed", "the refusal");
        var row = await Row(review, work);
        Assert.Equal(("NotFound", "AnotherWork"), (row.Text("state"), row.List("attempts").Last().Text("outcome")));
        Assert.False(loan["state"]!["isReceived"]!.GetValue<bool>());

        await world.Fault("voorland", "none");
        Assert.Equal(204, await Act(review, loan, "Fetch"));
        await Until(review, work, l => l.Text("delivery") == "Got", "the right copy");
        Assert.Equal("InHand", (await Row(review, work)).Text("state"));
    }

    [Fact]
    public async Task A_scanned_copy_waits_for_a_person()
    {
        var (review, work) = await Asked();
        await Until(review, work, "RequestReceived");
        await world.Fault("voorland", "scan");
        await world.Outside.Move(5);
        await Until(review, work, l => l.Text("delivery") == "Doubtful", "the scan");
        var row = await Row(review, work);
        Assert.Equal(("ToLookAt", "Doubtful"), (row.Text("state"), row.List("texts").Single().Text("verdict")));
    }

    [Theory]
    [InlineData("gone", "Failed")]
    [InlineData("elsewhere", "Elsewhere")]
    [InlineData("by-post", "None")]
    public async Task A_copy_that_cannot_be_fetched_is_left_to_a_person(string fault, string delivery)
    {
        // Set before: where the copy will lie is settled when the request comes.
        await world.Fault("voorland", fault);
        var (review, work) = await Asked();
        await Until(review, work, "RequestReceived");
        await world.Outside.Move(5);
        var loan = await Until(
            review,
            work,
            l => Status(l) == "CopyCompleted" && l.Text("delivery") == delivery,
            "the end of it"
        );
        var row = await Row(review, work);
        Assert.Equal("NotFound", row.Text("state"));
        // To a host that is not the desk's nothing was sent.
        Assert.Equal(fault == "gone" ? 1 : 0, row.List("attempts").Count(a => a.Text("route") == "loan"));
        if (fault == "by-post")
            Assert.Equal("Mail", loan["state"]!.Text("sentVia"));
    }

    [Fact]
    public async Task A_thesis_is_lent_received_and_given_back()
    {
        var (review, work) = await Asked("thesis");
        var loan = await Until(review, work, "RequestReceived");
        Assert.Equal("Loan", loan["fields"]!.Text("service"));
        await world.Outside.Move(3);
        loan = await Until(review, work, "Loaned");
        Assert.NotNull(loan["state"]!["dueOn"]);
        Assert.Equal("ByLoan", (await Row(review, work)).Text("state"));
        Assert.Equal(0, (await Ann.Get($"/api/reviews/{review}/report/texts")).Int("got"));
        Assert.Equal(204, await Act(review, loan, "Received"));
        // Read on paper: it counts as retrieved.
        Assert.Equal(1, (await Ann.Get($"/api/reviews/{review}/report/texts")).Int("got"));
        Assert.Equal(409, await Act(review, loan, "Cancel"));
        Assert.Equal(204, await Act(review, loan, "Returned"));
        await Until(
            review,
            work,
            l => l.List("events").All(e => !e["isWaiting"]!.GetValue<bool>()),
            "the word to the desk"
        );
        await world.Outside.Move(1);
        loan = await Until(review, work, "LoanCompleted");
        Assert.Null(loan["state"]!["dueOn"]);
        Assert.Equal(1, (await Ann.Get($"/api/reviews/{review}/report/texts")).Int("got"));
    }

    [Fact]
    public async Task A_request_that_is_wrong_or_on_its_way_already_is_not_made()
    {
        var (review, work) = await Asked();
        Assert.Contains(
            "already been requested",
            (await Ask(review, work)).List("notAsked").Single().Text("sentence"),
            StringComparison.Ordinal
        );
        var other = await world.Work(review, "article", IsHad);
        foreach (
            var (name, value) in new[]
            {
                ("title", " "),
                ("issn", "1234-5678"),
                ("pages", "19–12"),
                ("date", "soon"),
                ("service", "Loan"),
            }
        )
            Assert.Equal(0, (await Ask(review, other, change: f => f[name] = value)).Int("asked"));
        Assert.Single((await Ann.Get($"/api/reviews/{review}/loans")).List("loans"));
    }

    [Fact]
    public async Task A_refused_message_says_why_and_can_be_asked_elsewhere()
    {
        await world.Fault("voorland", "refuse");
        var (review, work) = await Asked();
        var loan = await Until(review, work, "Refused");
        Assert.Equal(
            ("UnrecognisedDataElement", "bibliographicInfo"),
            (loan["state"]!.Text("why"), loan["state"]!.Text("note"))
        );
        Assert.Equal(1, (await Ask(review, work, Dear)).Int("asked"));
    }

    [Fact]
    public async Task A_desk_that_has_forgotten_the_account_is_given_another_one()
    {
        var (review, first) = await Asked();
        await Until(review, first, "RequestReceived");
        await world.Forget();
        var second = await world.Work(review, "article", IsHad);
        await Ask(review, second);
        await Until(review, second, "RequestReceived");
    }

    [Fact]
    public async Task Only_who_asked_acts_on_a_request_and_only_with_a_library_of_their_own()
    {
        var (review, work) = await Asked();
        var loan = await Until(review, work, "RequestReceived");
        var bob = await world.Host.Another(Ann, "bob");
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "bob", role = "Screener" });
        Assert.Equal(403, await Act(review, loan, "Cancel", bob));
        var seen = (await bob.Get($"/api/reviews/{review}/loans")).List("loans").Single();
        Assert.Equal(("Ann", false), (seen.Text("by"), seen["isMine"]!.GetValue<bool>()));
        Assert.Empty(
            (await bob.Ok("POST", $"/api/reviews/{review}/loans/drafts", new { works = new[] { work } })).List("desks")
        );
    }

    [Fact]
    public async Task Nobody_but_a_desk_can_write_to_its_address()
    {
        var (review, work) = await Asked();
        var loan = await Until(review, work, "RequestReceived");
        var desk = loan.Int("deskId");
        var library = (await Ann.Get("/api/libraries")).List("libraries").Single().Int("id");
        var back = (await Ann.Get($"/api/libraries/{library}/desks/{desk}/back")).Text("address");
        var others = (await Ann.Get($"/api/libraries/{library}/desks"))
            .AsArray()
            .Select(d => d!.Int("id"))
            .Single(d => d != desk);
        var other = (await Ann.Get($"/api/libraries/{library}/desks/{others}/back")).Text("address");
        string Message(string number, string status = "Unfilled") =>
            $"""
                <ISO18626Message xmlns="http://illtransactions.org/2013/iso18626"><supplyingAgencyMessage>
                <header><supplyingAgencyId><agencyIdType>ISIL</agencyIdType><agencyIdValue>XA-VLD</agencyIdValue></supplyingAgencyId>
                <timestamp>2031-01-01T00:00:00Z</timestamp><requestingAgencyRequestId>{number}</requestingAgencyRequestId></header>
                <messageInfo><reasonForMessage>StatusChange</reasonForMessage></messageInfo>
                <statusInfo><status>{status}</status></statusInfo></supplyingAgencyMessage></ISO18626Message>
                """;
        var number = loan.Text("number");
        // A made-up address; another desk's; a document type; nothing of the kind.
        Assert.Equal(HttpStatusCode.NotFound, (await Post(back[..^4] + "AAAA", Message(number))).Status);
        Assert.Contains("messageStatus>ERROR<", (await Post(other, Message(number))).Text, StringComparison.Ordinal);
        Assert.Contains(
            "BadlyFormedMessage",
            (await Post(back, "<!DOCTYPE a [<!ENTITY b 'c'>]><a>&b;</a>")).Text,
            StringComparison.Ordinal
        );
        Assert.Contains("BadlyFormedMessage", (await Post(back, "hello")).Text, StringComparison.Ordinal);
        Assert.Contains(
            "BadlyFormedMessage",
            (await Post(back, new string('x', 300_000))).Text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "UnrecognisedDataValue",
            (await Post(back, Message(number, "Teleported"))).Text,
            StringComparison.Ordinal
        );
        Assert.Contains("UnrecognisedDataValue", (await Post(back, Message("Z0"))).Text, StringComparison.Ordinal);
        Assert.Equal("RequestReceived", Status(await Loan(review, work)));
        // The same words at the right address count.
        Assert.Contains("messageStatus>OK<", (await Post(back, Message(number))).Text, StringComparison.Ordinal);
        Assert.Equal("Unfilled", Status(await Loan(review, work)));
    }

    private static async Task<(HttpStatusCode Status, string Text)> Post(string address, string text)
    {
        using var http = new HttpClient();
        using var content = new StringContent(text, Encoding.UTF8, "application/xml");
        using var reply = await http.PostAsync(new Uri(address), content);
        return (reply.StatusCode, await reply.Content.ReadAsStringAsync());
    }
}
