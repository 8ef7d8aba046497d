using CsCheck;
using Zendle.Core.Loans;

namespace Zendle.Core.Tests.Loans;

/// <summary>How a request stands after messages that came in any order.</summary>
public sealed class LoanHistoryTests
{
    private static readonly DateTimeOffset Monday = new(2026, 11, 23, 9, 0, 0, TimeSpan.Zero);

    private static SupplierMessage Says(
        int day,
        LoanStatus? status,
        LoanMessageReason reason = LoanMessageReason.StatusChange
    ) =>
        new(new("XA-VLD", "XA-QUI1", Monday.AddDays(day), "Z1"), reason)
        {
            Status = status,
            ChangedAt = Monday.AddDays(day),
        };

    private static LoanState Of(params object[] happened) =>
        LoanHistory.Of([
            .. happened.Select(
                (h, i) =>
                    h is SupplierMessage m
                        ? new LoanEvent(LoanEventKind.Told, Monday.AddDays(30), i, m)
                        : new LoanEvent((LoanEventKind)h, Monday.AddMinutes(i), i)
            ),
        ]);

    [Fact]
    public void A_request_is_unsent_until_the_desk_has_taken_it()
    {
        Assert.Equal(LoanStatus.Unsent, Of(LoanEventKind.Asked).Status);
        Assert.Equal(LoanStatus.Sent, Of(LoanEventKind.Asked, LoanEventKind.Sent).Status);
        Assert.Equal(LoanStatus.Refused, Of(LoanEventKind.Asked, LoanEventKind.Refused).Status);
        Assert.Equal(LoanStatus.Cancelled, Of(LoanEventKind.Asked, LoanEventKind.Withdrawn).Status);
    }

    [Fact]
    public void What_was_true_last_counts_whenever_it_came()
    {
        var late = Of(
            LoanEventKind.Asked,
            LoanEventKind.Sent,
            Says(3, LoanStatus.CopyCompleted) with
            {
                SentVia = "URL",
                Cost = new(4.5m, "EUR"),
            },
            Says(1, LoanStatus.WillSupply) with
            {
                ExpectedOn = new(2026, 11, 26),
            }
        );
        Assert.Equal(LoanStatus.CopyCompleted, late.Status);
        Assert.Equal(Monday.AddDays(3), late.Since);
        Assert.Equal("URL", late.SentVia);
        // When it was expected is of no interest once it has come.
        Assert.Null(late.ExpectedOn);
    }

    [Fact]
    public void A_message_before_the_desks_own_yes_counts()
    {
        // The desk wrote before its answer to the request had been written down here.
        Assert.Equal(
            LoanStatus.RequestReceived,
            Of(LoanEventKind.Asked, Says(0, LoanStatus.RequestReceived), LoanEventKind.Sent).Status
        );
    }

    [Fact]
    public void Reasons_and_offers_belong_to_the_status_they_were_told_with()
    {
        var offered = Of(
            LoanEventKind.Asked,
            LoanEventKind.Sent,
            Says(1, LoanStatus.RetryPossible) with
            {
                Why = "CostExceedsMaxCost",
                Offer = new(12, "EUR"),
                Note = "Dear.",
            }
        );
        Assert.Equal(("CostExceedsMaxCost", 12m, "Dear."), (offered.Why, offered.Offer!.Amount, offered.Note));
        var supplied = Of(
            LoanEventKind.Asked,
            LoanEventKind.Sent,
            Says(1, LoanStatus.RetryPossible) with
            {
                Why = "CostExceedsMaxCost",
                Note = "Dear.",
            },
            Says(2, LoanStatus.WillSupply)
        );
        Assert.Equal((null, ""), (supplied.Why, supplied.Note));
    }

    [Fact]
    public void Taking_back_waits_for_an_answer_and_is_granted_or_denied()
    {
        object[] asked =
        [
            LoanEventKind.Asked,
            LoanEventKind.Sent,
            Says(0, LoanStatus.RequestReceived),
            LoanEventKind.CancelAsked,
        ];
        var waiting = Of(asked);
        Assert.Equal((LoanStatus.RequestReceived, true), (waiting.Status, waiting.IsCancelAsked));
        var yes = Of([.. asked, Says(1, null, LoanMessageReason.CancelResponse) with { Answer = true }]);
        Assert.Equal((LoanStatus.Cancelled, false), (yes.Status, yes.IsCancelAsked));
        var no = Of([
            .. asked,
            Says(1, LoanStatus.WillSupply, LoanMessageReason.CancelResponse) with
            {
                Answer = false,
            },
        ]);
        Assert.Equal((LoanStatus.WillSupply, false, true), (no.Status, no.IsCancelAsked, no.IsCancelDenied));
    }

    [Fact]
    public void A_loan_is_due_until_it_is_back()
    {
        var lent = Says(3, LoanStatus.Loaned) with { DueOn = new(2026, 12, 24) };
        var with = Of(LoanEventKind.Asked, LoanEventKind.Sent, lent, LoanEventKind.Received);
        Assert.Equal((LoanStatus.Loaned, new DateOnly(2026, 12, 24), true), (with.Status, with.DueOn, with.IsReceived));
        var late = Of(LoanEventKind.Asked, LoanEventKind.Sent, lent, Says(32, LoanStatus.Overdue));
        Assert.Equal((LoanStatus.Overdue, new DateOnly(2026, 12, 24)), (late.Status, late.DueOn));
        var back = Of(
            LoanEventKind.Asked,
            LoanEventKind.Sent,
            lent,
            LoanEventKind.Received,
            LoanEventKind.Returned,
            Says(33, LoanStatus.LoanCompleted)
        );
        Assert.Equal(
            (LoanStatus.LoanCompleted, null, true, true),
            (back.Status, back.DueOn, back.IsReceived, back.IsReturned)
        );
    }

    private static readonly LoanStatus[] Supplier =
    [
        .. Enum.GetValues<LoanStatus>()
            .Where(s => s is not (LoanStatus.Unsent or LoanStatus.Sent or LoanStatus.Refused)),
    ];

    /// <summary>Any messages of different days, come in any order and any number of times, end where the last day says.</summary>
    [Fact]
    public void Order_and_repetition_change_nothing() =>
        Gen.Select(Gen.Int[0, Supplier.Length - 1].Select(i => Supplier[i]).Array[1, 8], Gen.Int[0, 1_000_000])
            .Sample(
                (statuses, seed) =>
                {
                    var messages = statuses
                        .Select((s, day) => Says(day, s) with { Why = s == LoanStatus.Unfilled ? "NotHeld" : null })
                        .ToArray();
                    var random = new Random(seed);
                    var jumbled = messages.Concat(messages.Where(_ => random.Next(3) == 0)).ToArray();
                    random.Shuffle(jumbled);
                    var state = Of([LoanEventKind.Asked, LoanEventKind.Sent, .. jumbled]);
                    var inOrder = Of([LoanEventKind.Asked, LoanEventKind.Sent, .. messages]);
                    Assert.Equal(statuses[^1], state.Status);
                    Assert.Equal(inOrder with { Addresses = [] }, state with { Addresses = [] });
                    // Said again, nothing is new.
                    Assert.All(messages, m => Assert.True(LoanHistory.IsRepeated(m, messages)));
                }
            );

    [Fact]
    public void Every_request_is_counted_once_as_supplied_in_vain_open_or_lent() =>
        Gen.Enum<LoanStatus>()
            .Array[0, 30]
            .Sample(statuses =>
            {
                var account = LoanAccount.Of([
                    .. statuses.Select((s, i) => (i / 2, new LoanState(s, Monday) { Cost = new(1.25m, "EUR") })),
                ]);
                Assert.Equal(statuses.Length, account.Asked);
                Assert.Equal(statuses.Length, account.Supplied + account.InVain + account.Open);
                Assert.Equal(account.InVain, account.Unfilled.Sum(u => u.Count));
                Assert.Equal((statuses.Length + 1) / 2, account.Works);
                Assert.Equal(1.25m * statuses.Length, account.Costs.Sum(c => c.Amount));
            });
}
