using System.Globalization;
using System.Xml.Linq;
using Zendle.Outside.World;

namespace Zendle.Outside.Loans;

/// <summary>A request at a desk: what it is for, and what the desk will say of it when its time comes.</summary>
public sealed class DeskRequest
{
    private static readonly TimeSpan Day = TimeSpan.FromDays(1),
        Lent = TimeSpan.FromDays(28);
    private readonly LendingDesk desk;
    private readonly Queue<DeskWord> coming = new();
    private DateTimeOffset dueOn;

    private DeskRequest(LendingDesk desk, XElement message, Work? work, string account)
    {
        (this.desk, Work, Account) = (desk, work, account);
        Requester = DeskXml.At(message, "header", "requestingAgencyId", "agencyIdValue");
        Number = DeskXml.At(message, "header", "requestingAgencyRequestId");
    }

    /// <summary>The work that is wanted; null when the desk knows none.</summary>
    public Work? Work { get; }

    /// <summary>The account of whoever asked.</summary>
    public string Account { get; }

    /// <summary>In whose name.</summary>
    public string Requester { get; }

    /// <summary>Their number of it.</summary>
    public string Number { get; }

    /// <summary>The desk's own number of it.</summary>
    public string OwnNumber { get; } = Guid.NewGuid().ToString("N")[..10];

    /// <summary>How it stands.</summary>
    public string Status { get; private set; } = "RequestReceived";

    /// <summary>
    /// Takes a request in and settles what will become of it: nothing that is not known or not there, nothing for less than it
    /// costs, nothing later than it is needed; a copy after some days, a book for four weeks.
    /// </summary>
    /// <param name="desk">The desk.</param>
    /// <param name="message">The request.</param>
    /// <param name="work">The work that it describes; null for none that is known.</param>
    /// <param name="account">The account of whoever asks.</param>
    /// <param name="host">Where the outside is reached.</param>
    /// <param name="switches">Faults.</param>
    /// <param name="now">Now.</param>
    public static DeskRequest Of(
        LendingDesk desk,
        XElement message,
        Work? work,
        string account,
        string host,
        DeskSwitches switches,
        DateTimeOffset now
    )
    {
        var request = new DeskRequest(desk, message, work, account);
        if (switches.Has(desk.Key, "silent"))
            return request;
        var isLoan = DeskXml.At(message, "serviceInfo", "serviceType") == "Loan";
        var price = isLoan ? desk.LoanCost : desk.CopyCost;
        var most = decimal.TryParse(
            DeskXml.At(message, "billingInfo", "maximumCosts", "monetaryValue"),
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var said
        )
            ? said
            : decimal.MaxValue;
        var supplied = now + desk.Days * Day;
        request.Say(new(now, "StatusChange", "RequestReceived"));
        if (work is null)
            request.Say(
                new(now + Day, "RequestResponse", "RetryPossible")
                {
                    Why = "NotFoundAsCited",
                    Note = "We know no such item; please check title and year.",
                }
            );
        else if (work.Id % desk.Lacks == desk.Lacks - 1)
            request.Say(new(now + Day, "RequestResponse", "Unfilled") { Why = "NotHeld" });
        else if (most < price)
            request.Say(
                new(now + Day, "RequestResponse", "RetryPossible") { Why = "CostExceedsMaxCost", Offer = price }
            );
        else if (
            DateTimeOffset.TryParse(
                DeskXml.At(message, "serviceInfo", "needBeforeDate"),
                CultureInfo.InvariantCulture,
                DateTimeStyles.AssumeUniversal,
                out var needed
            )
            && needed < supplied
        )
            request.Say(
                new(now + Day / 2, "RequestResponse", "Unfilled")
                {
                    Why = "NotAvailableForILL",
                    Note = "Not by that day.",
                }
            );
        else
        {
            request.Say(new(now + Day, "RequestResponse", "WillSupply") { ExpectedOn = supplied });
            request.Say(
                isLoan
                    ? new(supplied, "StatusChange", "Loaned")
                    {
                        DueOn = request.dueOn = supplied + Lent,
                        Via = "Mail",
                        Cost = price,
                    }
                    : new(supplied, "StatusChange", "CopyCompleted")
                    {
                        Via = switches.Has(desk.Key, "by-post") ? "Mail" : "URL",
                        Address =
                            switches.Has(desk.Key, "by-post") ? null
                            : switches.Has(desk.Key, "elsewhere") ? "http://10.1.2.3/copy.pdf"
                            : $"{host}/loan-desk/{desk.Key}/copies/{request.OwnNumber}.pdf",
                        Cost = price,
                    }
            );
            if (isLoan)
                request.Say(new(supplied + Lent + Day, "StatusChange", "Overdue") { DueOn = request.dueOn });
        }
        return request;
    }

    private void Say(DeskWord word) => coming.Enqueue(word);

    /// <summary>What is to be said by now, in order.</summary>
    public IEnumerable<DeskWord> Due(DateTimeOffset now)
    {
        while (coming.TryPeek(out var word) && word.At <= now)
        {
            coming.Dequeue();
            Status = word.Status;
            yield return word;
        }
    }

    /// <summary>What the desk says to a later word of the requester; null for nothing.</summary>
    /// <param name="action">What they said (list "Action").</param>
    /// <param name="now">Now.</param>
    public DeskWord? Heard(string action, DateTimeOffset now)
    {
        switch (action)
        {
            case "Cancel" when Status is "RequestReceived" or "ExpectToSupply" or "Cancelled":
                coming.Clear();
                Status = "Cancelled";
                return new(now, "CancelResponse", Status) { Answer = true };
            case "Cancel":
                return new(now, "CancelResponse", Status) { Answer = false, Note = "It is being made ready already." };
            case "StatusRequest":
                return new(now, "StatusRequestResponse", Status)
                {
                    ExpectedOn = Status == "WillSupply" && coming.TryPeek(out var next) ? next.At : null,
                };
            case "ShippedReturn" when Status is "Loaned" or "Overdue" or "Recalled":
                coming.Clear();
                coming.Enqueue(new(now + Day, "StatusChange", "LoanCompleted"));
                return null;
            default:
                return null;
        }
    }

    /// <summary>Whether its copy may be fetched.</summary>
    public bool IsCopied => Status == "CopyCompleted";
}
