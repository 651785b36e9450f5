"""Build the demo's reports and the papers of its claim: PDF files by ReportLab, mails and notes as text.

    python tools/build_demo_reports.py

Results: src/yarnex/demo/documents/. The same script gives the same files. All of it is made up. One sum of the annual
report and one of the bills are wrong on purpose, and one bill stands twice, so that the checks have something to find.
"""

from __future__ import annotations

import io
from pathlib import Path

TARGET = Path(__file__).parent.parent / "src" / "yarnex" / "demo" / "documents"
Rows = list[list[str]]


class Paper:
    """A PDF put together from headings, paragraphs and tables."""

    def __init__(self, title: str) -> None:
        from reportlab.lib.styles import ParagraphStyle

        self.title = title
        self.story: list[object] = []
        self.text = ParagraphStyle("text", fontName="Helvetica", fontSize=10, leading=14, spaceAfter=6)
        self.head = ParagraphStyle(
            "head", parent=self.text, fontName="Helvetica-Bold", fontSize=13, leading=17, spaceBefore=10
        )
        self.top = ParagraphStyle("top", parent=self.head, fontSize=18, leading=23)

    def heading(self, words: str, *, top: bool = False) -> Paper:
        from reportlab.platypus import Paragraph

        self.story.append(Paragraph(words, self.top if top else self.head))
        return self

    def say(self, *paragraphs: str) -> Paper:
        from reportlab.platypus import Paragraph

        self.story += [Paragraph(words, self.text) for words in paragraphs]
        return self

    def page(self) -> Paper:
        from reportlab.platypus import PageBreak

        self.story.append(PageBreak())
        return self

    def table(self, rows: Rows, widths: list[int], *, bold: tuple[int, ...] = ()) -> Paper:
        from reportlab.lib.colors import black
        from reportlab.platypus import Spacer, Table, TableStyle

        style = [
            ("FONT", (0, 0), (-1, -1), "Helvetica", 9), ("FONT", (0, 0), (-1, 0), "Helvetica-Bold", 9), ("ALIGN", (1, 0), (-1, -1), "RIGHT"),
            ("LINEBELOW", (0, 0), (-1, 0), 0.7, black), ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
        ]  # fmt: skip
        for row in bold:
            style += [
                ("FONT", (0, row), (-1, row), "Helvetica-Bold", 9),
                ("LINEABOVE", (1, row), (-1, row), 0.5, black),
            ]
        self.story += [Table(rows, colWidths=widths, style=TableStyle(style), hAlign="LEFT"), Spacer(1, 8)]
        return self

    def write(self, name: str) -> None:
        from reportlab import rl_config
        from reportlab.lib.pagesizes import A4
        from reportlab.platypus import SimpleDocTemplate

        rl_config.invariant = 1
        buffer = io.BytesIO()

        def foot(canvas, document) -> None:  # type: ignore[no-untyped-def]
            canvas.setFont("Helvetica", 8)
            canvas.drawCentredString(A4[0] / 2, 30, str(document.page))

        made = SimpleDocTemplate(
            buffer,
            pagesize=A4,
            leftMargin=60,
            rightMargin=50,
            topMargin=60,
            bottomMargin=60,
            title=self.title,
            author="Brackenfold Holdings Limited",
        )
        made.build(self.story, onFirstPage=foot, onLaterPages=foot)
        (TARGET / name).write_bytes(buffer.getvalue())


WIDE = [250, 40, 80, 80]
YEARS = ["", "Note", "2026\n£’000", "2025\n£’000"]


def annual_report() -> None:
    paper = Paper("Annual report and accounts for the year ended 30 June 2026")
    paper.heading("Brackenfold Holdings Limited", top=True).heading(
        "Annual report and accounts for the year ended 30 June 2026"
    )
    paper.heading("Financial highlights")
    paper.table(
        [["", "2026", "2025", "Change"], ["Revenue", "£61.5m", "£57.9m", "6.2%"], ["Operating profit before exceptional items", "£6.8m", "£6.0m", "13.8%"],
         ["Profit before tax", "£4.8m", "£4.7m", "2.8%"], ["Basic earnings per share", "14.99p", "14.59p", "2.7%"], ["Net debt", "£19.9m", "£21.3m", "(6.7%)"]],
        [250, 70, 70, 70],
    )  # fmt: skip
    paper.say(
        "Revenue rose by 6.2 per cent to £61.5 million in the year to 30 June 2026, as orders for worsted yarn recovered from the second quarter. Operating profit before exceptional items was £6.8 million (2025: £6.0 million).",
        "Exceptional items were £0.6 million, the cost of preparing to leave Low Weir Mill. The average number of employees was 412 (2025: 405).",
        "The Directors recommend a final dividend of 1.40 pence a share, to be paid on 11 December 2026 to shareholders on the register on 20 November 2026.",
        "The term loan from Aire Valley Bank falls due for repayment on 31 March 2031. Under its covenants the ratio of net debt to EBITDA may not be more than 2.75 times, tested on 30 June and 31 December in each year.",
    )
    paper.heading("Five-year summary")
    paper.table(
        [["£m unless stated", "2026", "2025", "2024", "2023", "2022"], ["Revenue", "61.5", "57.9", "54.2", "51.8", "49.6"],
         ["Operating profit before exceptional items", "6.8", "6.0", "5.4", "5.1", "4.7"], ["Net debt", "19.9", "21.3", "22.8", "23.1", "22.4"],
         ["Gearing (%)", "77.5", "94.4", "108.1", "117.9", "121.3"]],
        [210, 55, 55, 55, 55, 55],
    ).page()  # fmt: skip
    paper.heading("Consolidated income statement")
    paper.table(
        [YEARS, ["Revenue", "4", "61,480", "57,905"], ["Cost of sales", "", "(39,962)", "(37,988)"], ["Gross profit", "", "21,518", "19,917"],
         ["Distribution costs", "", "(5,214)", "(4,987)"], ["Administrative expenses", "5", "(9,480)", "(8,933)"],
         ["Operating profit before exceptional items", "", "6,824", "5,997"], ["Exceptional items", "6", "(640)", "–"], ["Operating profit", "", "6,184", "5,997"],
         ["Finance income", "", "85", "62"], ["Finance costs", "7", "(1,472)", "(1,391)"], ["Profit before taxation", "", "4,797", "4,668"],
         ["Taxation", "", "(1,199)", "(1,167)"], ["Profit for the year", "", "3,598", "3,501"], ["Basic earnings per share (pence)", "8", "14.99", "14.59"]],
        WIDE, bold=(3, 6, 8, 11, 13),
    ).page()  # fmt: skip
    paper.heading("Consolidated statement of financial position at 30 June 2026")
    paper.table(
        [YEARS, ["Non-current assets", "", "", ""], ["Property, plant and equipment", "9", "28,412", "27,006"], ["Intangible assets", "", "1,850", "1,912"],
         ["Right-of-use assets", "", "4,118", "4,530"], ["", "", "34,380", "33,448"], ["Current assets", "", "", ""], ["Inventories", "", "12,644", "11,870"],
         ["Trade and other receivables", "", "9,908", "9,215"], ["Cash and cash equivalents", "", "3,127", "2,604"], ["", "", "25,679", "23,689"],
         ["Total assets", "", "60,059", "57,137"], ["Current liabilities", "", "", ""], ["Borrowings", "10", "(2,400)", "(2,000)"], ["Lease liabilities", "", "(520)", "(505)"],
         ["Trade and other payables", "", "(8,731)", "(8,102)"], ["Current tax liabilities", "", "(611)", "(574)"], ["", "", "(12,262)", "(11,181)"],
         ["Non-current liabilities", "", "", ""], ["Borrowings", "10", "(16,200)", "(17,100)"], ["Lease liabilities", "", "(3,871)", "(4,290)"],
         ["Deferred tax liabilities", "", "(2,096)", "(2,014)"], ["", "", "(22,167)", "(23,404)"], ["Total liabilities", "", "(34,429)", "(34,585)"],
         ["Net assets", "", "25,630", "22,552"], ["Equity", "", "", ""], ["Share capital", "", "2,400", "2,400"], ["Share premium", "", "1,150", "1,150"],
         ["Retained earnings", "", "22,080", "19,002"], ["Total equity", "", "25,630", "22,552"]],
        WIDE, bold=(5, 10, 11, 17, 22, 23, 24, 29),
    ).page()  # fmt: skip
    paper.heading("Consolidated statement of cash flows")
    paper.table(
        [YEARS, ["Operating profit", "", "6,184", "5,997"], ["Depreciation and amortisation", "", "3,146", "2,988"], ["Increase in inventories", "", "(774)", "(402)"],
         ["Increase in receivables", "", "(693)", "(515)"], ["Increase in payables", "", "629", "388"], ["Cash generated from operations", "", "8,492", "8,456"],
         ["Interest paid", "", "(1,455)", "(1,380)"], ["Income tax paid", "", "(1,080)", "(1,012)"], ["Net cash from operating activities", "", "5,957", "6,064"],
         ["Purchase of property, plant and equipment", "", "(4,026)", "(3,318)"], ["Interest received", "", "85", "62"],
         ["Net cash used in investing activities", "", "(3,941)", "(3,256)"], ["Borrowings repaid", "", "(500)", "(1,600)"], ["Principal paid on leases", "", "(473)", "(455)"],
         ["Dividends paid", "", "(520)", "(480)"], ["Net cash used in financing activities", "", "(1,493)", "(2,535)"],
         ["Net increase in cash and cash equivalents", "", "523", "273"], ["Cash and cash equivalents at start of year", "", "2,604", "2,331"],
         ["Cash and cash equivalents at end of year", "", "3,127", "2,604"]],
        WIDE, bold=(6, 9, 12, 16, 17, 19),
    )  # fmt: skip
    paper.heading("Notes to the financial statements").heading("4 Segments")
    paper.table(
        [["£’000", "Revenue\n2026", "Revenue\n2025", "Operating profit\n2026", "Operating profit\n2025"], ["Worsted yarn", "34,210", "32,470", "4,312", "3,806"],
         ["Woollen yarn", "18,655", "17,385", "1,688", "1,480"], ["Commission dyeing", "8,615", "8,050", "1,304", "1,151"], ["Corporate", "–", "–", "(480)", "(440)"],
         ["Group", "61,480", "57,905", "6,824", "5,997"]],
        [150, 70, 70, 80, 80], bold=(5,),
    )  # fmt: skip
    paper.heading("5 Administrative expenses")
    paper.table(
        [["£’000", "2026", "2025"], ["Salaries", "5,102", "4,846"], ["Premises", "1,624", "1,508"], ["Information technology", "918", "871"],
         ["Professional fees", "744", "690"], ["Other", "1,002", "1,018"], ["", "9,480", "8,933"]],
        [250, 80, 80], bold=(6,),
    )  # fmt: skip
    paper.heading("10 Borrowings")
    paper.table(
        [["£’000", "2026", "2025"], ["Term loan, Aire Valley Bank", "15,600", "15,900"], ["Machinery loan", "3,000", "3,200"], ["Total borrowings", "18,600", "19,100"]],
        [250, 80, 80], bold=(3,),
    )  # fmt: skip
    paper.say(
        "The machinery loan is repayable within one year as to £2,400,000. The Group had undrawn facilities of £4.5 million at 30 June 2026."
    )
    paper.write("annual-report-2026.pdf")


def half_year() -> None:
    heads = [
        "",
        "Six months ended\n31 December 2025\n(unaudited)\n£’000",
        "Six months ended\n31 December 2024\n(unaudited)\n£’000",
        "Year ended\n30 June 2025\n(audited)\n£’000",
    ]
    paper = Paper("Half-year report for the six months ended 31 December 2025")
    paper.heading("Brackenfold Holdings Limited", top=True).heading(
        "Half-year report for the six months ended 31 December 2025"
    )
    paper.say(
        "Revenue for the six months ended 31 December 2025 was £30.1 million (2024: £28.2 million). Profit before tax rose to £2.6 million (2024: £2.2 million).",
        "We expect revenue of £60 million to £62 million for the full year. The Board will pay an interim dividend of 0.80 pence a share on 10 April 2026.",
    )
    paper.heading("Condensed consolidated income statement")
    paper.table(
        [heads, ["Revenue", "30,120", "28,240", "57,905"], ["Cost of sales", "(19,610)", "(18,560)", "(37,988)"], ["Gross profit", "10,510", "9,680", "19,917"],
         ["Distribution costs", "(2,560)", "(2,455)", "(4,987)"], ["Administrative expenses", "(4,655)", "(4,402)", "(8,933)"], ["Operating profit", "3,295", "2,823", "5,997"],
         ["Net finance costs", "(702)", "(671)", "(1,329)"], ["Profit before taxation", "2,593", "2,152", "4,668"], ["Taxation", "(648)", "(538)", "(1,167)"],
         ["Profit for the period", "1,945", "1,614", "3,501"]],
        [170, 100, 100, 100], bold=(3, 6, 8, 10),
    )  # fmt: skip
    paper.write("half-year-report-2025.pdf")


def bills() -> None:
    paper = Paper("Bills for the flood in the wool store")
    widths = [250, 60, 70, 80]
    head = ["Description", "Qty", "Rate £", "Amount £"]

    def bill(
        provider: str, address: str, number: str, dated: str, terms: str, rows: Rows, *, last: bool = False
    ) -> None:
        paper.heading(provider).say(
            address,
            f"Invoice {number}",
            f"Date: {dated}",
            terms,
            "To: Brackenfold Mills Limited, Low Weir Mill, Hebblethorpe",
        )
        paper.table([head, *rows], widths, bold=(len(rows) - 2, len(rows)))
        if not last:
            paper.page()

    first = [["Call-out, two fitters", "5.0 h", "62.00", "310.00"], ["Pump hire, 3 days", "3", "48.00", "144.00"], ["Copper pipe and fittings", "1", "96.50", "96.50"],
             ["Subtotal", "", "", "550.50"], ["VAT at 20%", "", "", "110.10"], ["Total due", "", "", "660.60"]]  # fmt: skip
    bill(
        "Calder Bank Plumbing Ltd",
        "Unit 4, Tenter Street, Hebblethorpe",
        "CB-2207",
        "12 February 2026",
        "Payment within 30 days",
        first,
    )
    bill("Wharfe Drying Services Ltd", "18 Mill Race, Thrapsley", "WD/0931", "27 February 2026", "Payment within 14 days",
         [["Dehumidifier hire, 4 units for 12 days", "48", "21.00", "1,008.00"], ["Monitoring visits", "6", "55.00", "330.00"], ["Removal of wet bales", "22", "14.00", "308.00"],
          ["Subtotal", "", "", "1,664.00"], ["VAT at 20%", "", "", "332.80"], ["Total due", "", "", "1,996.80"]])  # fmt: skip
    bill(
        "Calder Bank Plumbing Ltd",
        "Unit 4, Tenter Street, Hebblethorpe",
        "CB-2207",
        "3 March 2026",
        "Reprinted at your request. Payment within 30 days",
        first,
        last=True,
    )
    paper.write("flood-bills.pdf")


def statement() -> None:
    paper = Paper("Statement of claim payments")
    paper.heading("Statement of claim payments", top=True)
    paper.table(
        [
            ["Item", "Detail"],
            ["Insured", "Brackenfold Mills Limited"],
            ["Policy", "LP-44817"],
            ["Date of loss", "9 February 2026"],
            ["Date of this statement", "30 April 2026"],
        ],
        [150, 300],
    )
    paper.heading("Costs presented and allowed")
    paper.table(
        [["Supplier and invoice", "Presented £", "Allowed £", "Reason"], ["Calder Bank Plumbing Ltd, CB-2207", "660.60", "nil", "1"],
         ["Wharfe Drying Services Ltd, WD/0931", "1,996.80", "1,975.20", "2"], ["Total", "2,657.40", "1,975.20", ""]],
        [230, 80, 80, 60], bold=(3,),
    )  # fmt: skip
    paper.say(
        "Reason 1: repair of the pipe itself is not insured.",
        "Reason 2: the lines come to £1,646.00; allowed as recalculated with VAT.",
    )
    paper.heading("Settlement")
    paper.table(
        [
            ["", "£"],
            ["Costs allowed", "1,975.20"],
            ["Less: excess", "(500.00)"],
            ["Paid 14 April 2026 (interim)", "(900.00)"],
            ["Paid 30 April 2026", "(575.20)"],
            ["Balance", "nil"],
        ],
        [250, 80],
        bold=(5,),
    )
    paper.say(
        "If you disagree with this statement you may ask for a review in writing within 60 days of its date. Please send us the stock count by 29 May 2026."
    )
    paper.write("claim-statement.pdf")


MAIL = """\
From: Maud Ackroyd <maud.ackroyd@brackenfold.example>
To: Claims <claims@lowpennine.example>
Date: Tue, 10 Feb 2026 09:40:00 +0000
Subject: Flood in the wool store, policy LP-44817
Message-ID: <flood-1@brackenfold.example>
Content-Type: text/plain; charset=utf-8

Good morning. I am writing to give notice of a claim. At 06:20 on Monday 9 February 2026 our foreman, Joss Tattersall, found
water coming through the ceiling of the wool store at Low Weir Mill. He had the water off by 06.35. Some forty bales are wet.

The plumber came at 08:10 and found a split joint in the pipe above. The drying firm starts tomorrow.

On 5 February a carder told the office that the ceiling was dripping; a bucket was put under it.

Maud Ackroyd
Company Secretary
"""

NOTE = """\
INCIDENT REPORT

Place: wool store, Low Weir Mill, Hebblethorpe
Date of report: 9 February 2026
Reported by: Joss Tattersall, foreman

1. What happened
At 06:45 on 9 February 2026 I found water coming through the ceiling of the wool store. I turned the water off at the main stopcock at 06:55.
The plumber arrived at 08:10. The next morning Wharfe Drying Services Ltd set up four dehumidifiers. They were taken away twelve days later.

2. What is wet
Forty-one bales of scoured wool on the top two racks. None of it can be spun before it is dried and tested.

3. Actions
Fit a leak detector above the store by 31 March 2026. Keep the top racks empty until the ceiling is dry.
"""


def main() -> None:
    annual_report()
    half_year()
    bills()
    statement()
    (TARGET / "claim-mail.eml").write_bytes(MAIL.replace("\n", "\r\n").encode())
    (TARGET / "incident-report.txt").write_text(NOTE, "utf-8")


if __name__ == "__main__":
    main()
