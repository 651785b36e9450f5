"""What a question asks for: the kind of answer, the words to look for, and what limits it.

In: a question in plain words. Out: a `Question`. It knows nothing of any document.
"""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass, replace
from functools import lru_cache

from yarnex.core.patterns import pattern
from yarnex.core.terms.by_words import SAY_LITTLE, Idea, ideas_of, telling_words
from yarnex.core.terms.measures import is_share, units_asked
from yarnex.core.terms.sheets import load_sheet, shipped_sheets
from yarnex.core.words import stem, stems_of

AUXILIARY = r"(?:does|do|did|is|are|was|were|may|can|could|must|has|have|had|will|would|should|shall|am)"
YES_NO = pattern(rf"\A(?:and\s+|so\s+|but\s+)?{AUXILIARY}\b", re.IGNORECASE)
SECOND_PART = pattern(
    r",?\s+and,?\s+(?P<part>(?:if so,?\s+)?(?:to\s+|by\s+|for\s+|until\s+)?(?:what|how|when|who|where|which|why)\b.*)",
    re.IGNORECASE,
)
UNIT_WORDS = r"(?:business\s+days?|working\s+days?|days?|weeks?|months?|years?|hours?|minutes?|quarters?)"
# Forms of questions with the kind of answer, the first that fits counts.
FORMS: tuple[tuple[str, tuple[str, ...]], ...] = (
    (r"\bwhat\s+(?:is|was)\s+(?:his|her|their|the\s+\w+['’]s|\w+['’]s)\s+(?:job|occupation|profession|trade|position|post|role|job\s+title)\W*\Z", ("text",)),
    (rf"\bwhat\s+(?:are|is)\s+the\s+(?:most|least|fewest|longest|shortest)\s+(?:\w+\s+)?{UNIT_WORDS}\b", ("duration", "number", "text")),
    (r"\bwhat\s+(?:is|was|are|were)\s+the\s+(?:[\w-]+\s+){0,2}number\s+of\s+(?!(?:days?|weeks?|months?|years?|hours?)\b)[a-z]+s\b", ("number", "percent")),
    (r"(?<!by\s)\bhow\s+much\s+(?!(?:money|notice|time|warning)\b)(?:[\w-]+\s+){1,6}(?:use|consume|burn|weigh|produce|generate|emit)s?\b", ("number", "money", "percent")),
    (r"\b(?:at\s+)?what\s+(?:is\s+the\s+)?(?:exchange\s+|conversion\s+)?rate\b(?=.*\b(?:convert\w*|conversion|exchange\w*|currenc\w+|dollars?|euros?|sterling)\b)(?!.*\binterest\b)", ("number", "text")),
    (r"\b(?:to|against|over|on)\s+(?:which|what)\s+(?:[\w-]+\s+){0,2}(?:rate|index|benchmark)\b(?=.*\b(?:linked|tied|based|indexed|refer\w*|pegged)\b)|\bwhich\s+(?:reference|benchmark|base)\s+rate\b", ("text",)),
    (r"\bhow\s+old\b", ("duration", "date", "number", "text")),
    (r"\bhow\s+likely\b|\bwhat\s+(?:is|was|are|were)\s+the\s+(?:\w+\s+)?(?:chances?|likelihood|probability|odds|risk)\s+(?:of|that)\b", ("percent", "number", "text")),
    (r"\bwhat\s+(?:does|did|do)\s+(?:(?!not\b)[\w’'-]+\s+){1,5}(?:want|ask(?:\s+for)?|demand|seek|bid|quote)\b(?:\s+(?:a|per|each|every)\s+(?:year|month|week|day))?\s*\?", ("money", "percent", "number", "duration", "text")),
    (r"\bhow\s+(?:did|has|have|do|does)\s+(?:[\w’'-]+\s+){1,5}(?:grow|grown|change|changed|develop|developed|rise|risen|fall|fallen|perform|performed|do|fare|go)\b", ("percent", "money", "text")),
    (r"\bhow\s+(?:fine|thick|coarse)\b", ("number", "percent")),
    (r"\bhow\s+(?:damp|humid|moist)\b", ("percent", "number")),
    (r"\bhow\s+far\s+back\b", ("date", "duration", "text")),
    (r"\bby\s+how\s+much\b.*\b(?:lengthened|extended|prolonged|shortened|brought\s+forward|put\s+off|postponed|delayed)\b", ("duration", "percent", "money", "text")),
    (r"\b(?:what|how\s+much)\s+(?:can|could|may|might|should)\s+(?!not\b)(?:[\w'’-]+\s+){1,5}(?:carry|lift|hold|support|withstand)\b(?!\s+(?:out|back|up|on)\b)", ("number", "percent", "money", "text")),
    (r"(?<!for\s)\bhow\s+long\s+(?:is|are|was|were)\s+(?:the|an?|this|that|his|her|its|their|our|each)\s+(?!(?:[\w’'-]+\s+){0,2}(?:terms?|periods?|leases?|contracts?|agreements?|notice|warranty|guarantee|tenancy|engagement|appointment|delay|leave|holiday|loan|cover)\b)(?:[\w'’-]+\s*){1,3}\?", ("duration", "number", "text")),
    (r"\bin\s+(?:time|hours|days|weeks|months|years)\s*\?", ("duration", "number")),
    (r"\bloan[\s-]to[\s-](?:value|cost)\b|\bltv\b|\bwhat\s+(?:is\s+the\s+)?(?:margin|spread)\s+(?:over|above|on)\b|\bwhat\s+(?:\w+\s+){0,2}(?:margin|spread|mark-?up)\s+(?:over|above)\b", ("percent", "number")),
    (r"\bwhat\s+(?:share|percentage|proportion|per\s?cent)\s+of\b", ("percent", "money", "number")),
    (r"\bwhat\s+(?:\w+\s+){0,2}(?:hourly|daily|day|weekly|monthly)\s+rate\b|\brate\s+(?:per|for\s+an?)\s+(?:hour|day)\b", ("money", "number", "percent")),
    (r"\b(?:what|how\s+much|by\s+how\s+much)\b.*\b(?:price|rent|fee|charge|cost)s?\s+(?:can|may|could|will|does|do|is\s+allowed\s+to)\s+(?:rise|increase|go\s+up|grow)\b|\bby\s+how\s+much\s+(?:can|may|could|does|do|will)\b.*\b(?:rise|increase|go\s+up)\b", ("percent", "money", "number")),
    (r"\bwhat\s+(?:is|was|are|were)\s+(?:asked|offered|claimed|quoted|bid|demanded|sought)\b", ("money", "percent", "number", "text")),
    (r"\bhow\s+efficient\b|\bwhat\s+(?:\w+\s+)?efficiency\b|\bwhat\s+weight(?:ing)?\s+(?:does|do|is|has)\b", ("percent", "number")),
    (r"\b(?:page|word|speed|age|size|weight|height|character)\s+limit\b", ("number", "percent", "text")),
    (r"\bas\s+a\s+(?:share|percentage|proportion)\s+of\b|\bhow\s+many\s+per\s?cent\b", ("percent", "text")),
    (r"\bhow\s+many\s+(?:percentage\s+)?points\b", ("number", "percent")),
    (r"\b(?:by|before|after|from|until)\s+what\s+(?:time|hour)\b|\bat\s+what\s+time\b|\A(?:and\s+)?what\s+time\b|\bat\s+(?:what|which)\s+(?:hours?|times)\b|\bwhat\s+hours\b", ("time", "text")),
    (r"\A(?:and\s+)?what\s+(?:happens?|happened|follows|becomes?|became)\b", ("text",)),
    (r"\b(?:number|reference)\s+of\s+(?:the|this|that|its|their|our|your|his|her)\s+(?:[\w-]+\s+)?(?:order|policy|invoice|contract|agreement|lot|batch|licence|license|registration|company|account|case|claim|file|patent|permit|model|report|job|ticket|room|certificate|authorisation|quotation|tender|drawing|plot|title|lease|loan|letter|application|vehicle|machine|study|survey|test|minutes?|form|document|paper)\b(?!s)", ("code", "text")),
    (r"\b(?:order|policy|invoice|contract|agreement|lot|batch|part|licence|license|registration|company|account|case|claim|file|patent|permit|model|serial|report|job|ticket|room|telephone|phone|mobile|fax|tax|vat|certificate|authorisation|membership|reference|ref|purchase|quotation|tender|dial|fax|catalogue|drawing|plot|title)\s+(?:order\s+)?(?:number|no\.?|code|reference|identifier|id)\b|\b(?:[a-z]+['’]s?|our|your|their|file|letter)\s+ref(?:erence)?\s*\?|\b(?:sort|swift|bank|post|postal|zip|bar|access)\s*code\b|\biban\b|\bbic\b|\bwhat\s+(?:is|was)\s+(?:the|our|your|its|their)\s+(?:reference|identifier|telephone|phone|mobile|fax)\b|\bon\s+(?:what|which)\s+(?:telephone\s+|phone\s+)?number\b|\breference\s+(?:does|do|did|is|was)\b|\b(?:entity|tax|vat)\s+identifier\b", ("code", "text")),
    (r"\b(?:to|from|into|through|which|what)\s+(?:which\s+|what\s+)?(?:bank\s+)?account\b(?=.*\b(?:pay|paid|credit\w*|debit\w*|transfer\w*|sen[dt]|remit\w*)\b)|\b(?:to|from|into|through)\s+(?:which|what)\s+(?:bank\s+)?account\b|\b(?:which|what)\s+number\s+(?:has|have|had|is|was|does|do)\b", ("code", "text")),
    (r"\A(?:and\s+|but\s+|so\s+)?why\b|\bwhat\s+(?:reason|cause|caused)\b|\bfor\s+what\s+reason\b", ("text",)),
    (r"\bper\s+(?:ordinary\s+)?share\b|\bdividends?\s+(?:a|per)\s+share\b|\bwhat\s+(?:is|was|are|were)\s+the\s+(?:\S+\s+){0,2}dividend\b", ("money", "number", "percent")),
    (r"\A(?:and\s+)?(?:(?:on|by|from|until|before|after|at)\s+)?(?:which|what)\s+(?:\w+\s+)?(?:day|date)\b(?!s)", ("date", "time", "duration", "text")),
    (r"\b(?:which|what)\s+(?:days|dates|sections|clauses|items|countries|names|people|companies|documents)\b|\A(?:please\s+)?list\b|\bset\s+out\b|\bwho\s+are\b|\bwhat\s+are\s+(?:all\s+)?the\b", ("list", "text")),
    (rf"\bhow\s+many\s+{UNIT_WORDS}['’]?\s+(?:rent|salary|pay|fees?)\b", ("duration",)),
    (r"\bhow\s+(?:fast|quickly)\s+(?:may|can|must|could|did|does|do|will)\s.*\b(?:grow|rise|increase|go\s+up|fall)", ("percent", "money", "number")),
    (r"\bhow\s+long\s+(?:\w+\s+){0,8}?(?:runs?|lasts?|continues?|stays?|remains?|valid|good|fixed|in\s+force|open|held|until)\b", ("duration", "date", "text")),
    (rf"\bhow\s+many\s+(?:(?:lease|contract|calendar|full|whole|complete|further|extra|consecutive|clear|running|successive)\s+(?=(?:business\s+|working\s+)?(?:day|week|month|year|quarter)))?{UNIT_WORDS}\b|\bhow\s+(?:long|soon|fast|quickly|late|early|far\s+ahead|far\s+in\s+advance|long\s+beforehand)\b|\bhow\s+much\s+(?:notice|time|warning)\b|\bwithin\s+what\s+(?:time|period)\b|\bon\s+(?:what|how\s+much)\s+notice\b|\bwhat\s+(?:\w+\s+)?(?:notice|warning)\b|\bwhat\s+(?:period|length\s+of\s+time|cure\s+period|warranty)\b", ("duration", "text")),
    (r"\bwhat\s+(?:part|portion|fraction|slice|proportion)\s+of\b|\bby\s+what\s+(?:part|fraction|proportion)\b", ("percent", "money", "number")),
    (r"\bhow\s+often\b", ("often", "duration", "text")),
    (r"\A(?:(?:and|but|so|to|by|from|for|with|on|of|at|in|against)\s+){0,2}(?:who|whom|whose)\b|\bwhich\s+(?:firm|company|bank|party|person|broker|insurer|auditor|supplier|organisation|authority|director|non-executive|adjusters?|solicitors?|lawyers?|architects?|engineers?|surveyors?|contractors?|consultants?|laborator(?:y|ies)|doctors?|surgeons?|university|lender|manufacturer)\b(?!\s+(?:fees?|costs?|reports?|rates?)\b)|\bto\s+whom\b", ("party", "text")),
    (r"(?:\A|,\s+)(?:and\s+|but\s+)?(?:by\s+|from\s+|since\s+|until\s+|on\s+|up\s+to\s+)?when\b|\b(?:what|which)\s+(?:\S+\s+)?(?:date|day)\b|\bwhat\s+year\s+end\b", ("date", "time", "duration", "text")),
    (r"\bwhat\s+(?:\w+\s+){0,3}?(?:limit|cap|ceiling|deductible|excess)\b|\bwhat\s+is\s+the\s+(?:most|least|highest|lowest|largest|smallest|greatest)\b", ("money", "percent", "number", "duration", "text")),
    (r"\bto\s+(?:what|how\s+much)\s+(?:is|are|was|were|has|have|did|will|does)\b.*\b(?:raised?|increased?|cut|reduced?|lowered|changed|extended|risen?|rose|fall|fallen|fell|grown?)\b", ("money", "percent", "number", "duration", "text")),
    (r"\A(?:and\s+)?(?:(?:above|below|beyond)\s+(?:what|which)\b|(?:from|over|under)\s+(?:what|which)\s+(?:size|sum|amount|level|salary|value|price|pay|income|turnover)\b)", ("money", "percent", "number", "duration", "text")),
    (r"\bto\s+what\s+(?:level|standard|extent|degree)\b", ("text", "money", "percent", "number")),
    (r"\bwhat\s+(?:\S+\s+){0,3}?range\b|\bhow\s+(?:is|are|was|were)\b|\bunder\s+(?:which|what)\b|\bwhat\s+state\b|\bto\s+what\s+is\b", ("text", "percent", "money")),
    (r"\bwhere\b|\bwhat\s+(?:address|place)\b", ("text",)),
    (r"\A(?:and\s+)?what\s+(?:was|were|is|has\s+been)\s+(?:gained|lost|earned|raised|saved|realised)\b", ("money", "percent", "number", "text")),
    (r"\bwhat\s+(?:\w+\s+){0,2}?(?:percentage|share(?!\s+(?:price|capital|options?|purchase|class|register|certificate|premium|issue|buy-?back|scheme|plan))|proportion|per\s?cent|fraction|interest|mark-up|discount\s+rate|tax\s+rate|rebate|uplift|rate)\b|\bat\s+what\s+rate\b|\bwhat\s+is\s+the\s+(?:\w+\s+){0,2}(?:rate|percentage|share(?!\s+(?:price|capital|options?|purchase|class|register|certificate|premium)))\b", ("percent", "money", "number")),
    (r"\bhow\s+much\s+(?:does|do|did)\s+(?:\w+\s+){1,4}(?:count|weigh|grow|rise|increase)\b|\bby\s+how\s+much\b|\bby\s+what\b|\bby\s+how\s+many\s+points\b", ("percent", "money", "number")),
    (r"\bhow\s+(?:big|large|high|tall|deep|heavy|far|loud|cold|hot|warm|wide|thick|strong)\b|\bhow\s+many\b|\bwhat\s+(?:\w+\s+){0,2}?(?:number|ratio)\b|\bwithin\s+what\s+distance\b|\bwhat\s+does\s+(?:\w+\s+){1,3}(?:weigh|measure|hold|burn|consume|use)\b", ("number", "percent")),
    (r"\bwhat\s+(?:does|did|do|will|has|have)\s+(?:[\w’'-]+\s+){1,4}(?:gets?|give|gives|given|set\s+aside|put\s+in)\b(?!\s+(?:up|back|away|out|rid|to\s+(?!(?:the|its|their|his|her)\b)|notice|reasons?|consent|leave))", ("money", "percent", "number", "duration", "text")),
    (r"\bhow\s+much\s+(?:[\w-]+\s+){0,3}?(?:tax|vat|gst|duty)\s+(?:was|were|has\s+been)\b.*\b(?:charged|paid|added|owed|billed)\b", ("money",)),
    (r"\bhow\s+much\s+(?:[\w-]+\s+){0,3}?(?:tax|vat|gst|duty)\s+(?:is|was|are|were|has|have|must)\b.*\b(?:charged|paid|payable|due|added|owed|billed)\b", ("money", "number", "duration", "percent")),
    (r"\bhow\s+much\b|\bwhat\s+(?:\w+\s+){0,3}?(?:sum|amount|price|cost|costs|fee|fees|rent|deposit|salary|premium|charge|charges|cover|value|budget|penalty|excess|allowance|net\s+worth|debt|worth)\b|\bwhat\s+(?:does|did|do|would|will|may|must|can|could|should|shall)\s+.*\b(?:cost|pay|come\s+to|charge|earn|save|fetch|bring\s+in|sell\s+for|raise|spend|owe|receive|contribute|lose)\b|\bwhat\s+(?:is|was|are|were|will\s+be|has\s+been)\s+.*\b(?:paid|charged|worth|payable|spent|set\s+aside|knocked\s+off|taken\s+off|deducted|held\s+back|withheld|kept\s+back|written\s+off|refunded|reimbursed|invested|raised|saved|earned|borrowed|repaid)\b|\bwhat\s+(?:must|should|shall|may|can|will|would)\s+.*\bbe\s+(?:worth|paid|spent|set\s+aside)\b", ("money", "percent", "number", "duration")),
)  # fmt: skip
# What is asked for one after another: a sum for each year.
FOR_EACH = pattern(
    r"\b(?:for|in|of)\s+(?:each|every)\s+(?:\w+\s+){0,2}(?:year|quarter|month|instalment)\b(?!\s+(?:of\s+delay|late|overdue))"
    r"|\b(?:year\s+by\s+year|month\s+by\s+month|by\s+(?:year|month|quarter|period))\b"
    r"|\A(?:please\s+)?(?:list|set\s+out|give|show)\b.*\b(?:(?:yearly|annual|monthly|quarterly|weekly)\b(?!\s+(?:leave|holiday|notice|hours))|instalments\b|repayments\b)",
    re.IGNORECASE,
)
YEAR = pattern(r"(?:19|20)\d\d")
WHICH_DAYS = pattern(r"\W*(?:on|by|from)?\s*(?:which|what)\s+(?:\w+\s+)?(?:days|dates)\b", re.IGNORECASE)
SIZE_OF_SUM = pattern(
    r"\bsize\s+of\s+(?:the\s+|a\s+)?(?:loan|debt|facility|claim|order|deal|contract|loss|budget|payment|fine|bond|investment|grant)s?\b",
    re.IGNORECASE,
)
RATIO = frozenset(("times",))  # "cover" is also what an insurance pays
# "What is the greatest depth ...": what comes before "of", "in", a verb and the like says what is measured.
MEASURED = pattern(
    rf"\b(?:what|which)\s+(?:(?:is|are|was|were)\s+)?(?:the\s+|its\s+|their\s+)?(?P<thing>(?!{AUXILIARY}\b)\w[\w'’-]*(?:\s(?!(?:{AUXILIARY}|of|in|on|at|for|to|by|per|a|the|an|so|when|where|that|if|from|over|with|once|we|you|they|it|he|she|i|after|before|since|while|during|as|under|now|still|already|also|then|ever|always|only|not)\b)\w[\w'’-]*){{0,3}})",
    re.IGNORECASE,
)
WHEN_DONE = pattern(
    rf"(?:and\s+|but\s+)?(?:by\s+|from\s+|since\s+|until\s+)?(?:when|(?:on|by|from)\s+(?:what|which)\s+(?:day|date)|in\s+(?:what|which)\s+(?:year|month))\s+{AUXILIARY}\s.*?\b(?P<deed>[\w'’-]+)\W*\Z",
    re.IGNORECASE,
)
HAS_VERB = pattern(rf"\b{AUXILIARY}\b", re.IGNORECASE)
OF_WHAT = pattern(r"\s(?:at|on|in|for|by|from|of|with|under|over|before|after|during|to)\s", re.IGNORECASE)
WHAT = pattern(r"(?:and\s+|but\s+|so\s+)?(?:\w+\s+)?what\b", re.IGNORECASE)
HOW = pattern(r"\bhow\s+(?P<what>long|big|large)\b", re.IGNORECASE)
# "How big is the deposit?" may be told as a sum.
HOW_BIG = pattern(
    r"\bhow\s+(?:big|large|high|low|great)\s+(?:is|was|are|were|will)\s+(?:be\s+)?(?P<thing>.+)", re.IGNORECASE
)
# "For which claim are rights reserved?" asks for its name, and not how much it comes to.
_told_apart = frozenset(
    map(
        stem,
        ("claim", "claims", "loan", "order", "bid", "offer", "book", "debt", "grant", "cover", "budget", "deposit"),
    )
)
_lent = frozenset(
    stem(w)
    for w in [
        "loan",
        "facility",
        "overdraft",
        "mortgage",
        "fund",
        "fine",
        "grant",
        "gift",
        "reserve",
        "pension",
        "investment",
        "line",
    ]
)
# "What are the borrowings?" asks for a sum, though it is in the plural.
SUMS = pattern(
    r"(?:and\s+)?what\s+(?:are|were)\s+(?:(?:the|its|our|their)\s+)?(?:total\s+|net\s+|annual\s+)?(?:[\w-]+\s+)?(?:damages|borrowings?|emissions?|earnings|sales|revenues?|savings?|proceeds|debts?|stocks|inventories|receivables|payables|taxes)\b",
    re.IGNORECASE,
)
IN_UNITS = pattern(
    r"\bin\s+(?:square|cubic|sq|metres?|meters?|feet|hectares?|acres?|kilo\w+|litres?|tonnes?)\b|\b(?:floors?|rooms?|sites?|buildings?|units?|yards?|premises|plots?|shops?|offices?|warehouses?|houses?|gardens?|fields?)\W*\Z",
    re.IGNORECASE,
)
# "How much gas must be saved": a measured thing, where its name is not given as a sum.
HOW_MUCH_OF = pattern(
    rf"\bhow\s+much\s+(?!{AUXILIARY}\b|(?:of|more|less|money|notice|time|warning|tax|longer|earlier|later|further|in|per|a|an|the)\b)(?P<thing>[a-z]{{3,}})\s+(?:{AUXILIARY}|goes|comes|flows|passes|leaves|enters|remains|ran|went|came|left|fell|got|[a-z]{{3,}}ed)\b",
    re.IGNORECASE,
)
FOR_ONE = pattern(r"\bper\s+(?!cent\b)[a-z]{3,}", re.IGNORECASE)  # "storage per bale" may be a charge
ASKED_WEIGHT = 0.4  # what "how long" asks for counts less than what it is asked of
# Words of a question that documents need not have, and how much each counts: they tell of which time, how exactly or how
# far it is asked, what a value's own words say otherwise ("not less than"), or do a noun's work ("the fee that applies").
LIGHT: tuple[tuple[str, float], ...] = (
    ("now today present current currently nowadays already still yet exactly precisely roughly actually really altogether anyway please ever entirely automatically", 0.25),
    ("minimum maximum least most greatest longest highest lowest largest smallest tallest biggest shortest", 0.35),
    ("apply count put get stand fall come go keep reach carry add work want become impose make take give happen allow let need follow say tell show mean expect concern", 0.4),
    ("without since", 0.4),
    ("planned scheduled expected intended foreseen", 0.4),
    ("after before", 0.7),
    ("deep loud high wide tall heavy thick far cold hot warm strong earliest", 0.4),
    ("range size amount figure money part fraction level kind sort", 0.5),
    ("new old other one each own whole", 0.5),
    ("statutory reported general standard ordinary initial original normal usual", 0.6),
)  # fmt: skip
LIGHT_PHRASES: dict[tuple[str, ...], float] = {("carri", "out"): 0.4, ("take", "place"): 0.4}  # as light as a verb
_light = {stem(word): weight for words, weight in LIGHT for word in words.split()}
WHICH = pattern(
    r"(?:(?:and|but|so)\s+)?(?:(?:to|from|in|on|by|for|with|under|at|of|into|through)\s+)?which\b", re.IGNORECASE
)
IT = pattern(
    r"what\s+(?:is|are)\s+(?:it|they)|how\s+much(?:\s+is\s+it)?|to\s+how\s+much|up\s+to\s+what|what", re.IGNORECASE
)
# "What did she find", "for what may it be used": what is asked for is not named, but what is done with it is.
BY_VERB = pattern(
    rf"\A(?:\w+\s+)?what\s+(?P<deed>{AUXILIARY}\s+(?!the\b|its\b|their\b|her\b|his\b|our\b|a\b|an\b)(?!(?:is|was|are|were)\s).*|(?!(?:is|was|are|were)\s+(?:the|its|their|her|his|our|an?)\b){AUXILIARY}\s+(?:\S+\s+){{1,4}}\w+\W*\Z|happen\w*.*)",
    re.IGNORECASE,
)
# What names of things, and deeds, are given as; the first is likeliest.
GIVEN_AS: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("balance capital principal saving headroom room undrawn owe left instalment price cost fee charge turnover sales revenue income profit loss spending expenditure depreciation materiality provision budget debt claim excess deductible salary premium proceeds goodwill dividend surcharge deposit deficit surplus shortfall overrun tax taxation levy toll tariff wage bid offer rent capex ebit ebita ebitda gain takings cash borrowing earnings bear bears bore subsidy grant refund turnover valuation compensation payout damages book quote quotation estimate", ("money", "percent", "number")),
    ("commission royalty royalties rebate discount uplift markup gearing occupancy coupon humidity uptime availability", ("percent", "money", "number")),
    ("cap ceiling floor limit threshold breakpoint cover credit contribution bonus penalty pay paid charged bought sold spend spent added add contribute earn figure allowance", ("money", "percent", "number", "duration")),
    ("life period age tenure interval duration notice", ("duration", "text")),
    ("rise increase decrease fall drop growth return understatement overstatement margin yield stake transfer interest rate change", ("percent", "money", "number")),
    ("date cutoff cut deadline expiry start end commencement maturity completion closing", ("date", "duration")),
    ("security collateral purpose use scope condition", ("text", "list")),
    ("emission consumption usage", ("number", "percent")),
    ("mark score grade", ("number", "text")),
    ("uncertainty exposure reading version size count height width depth length distance weight", ("number", "text")),
)  # fmt: skip
_given_as = {stem(word): kinds for words, kinds in GIVEN_AS for word in words.split()}
_forms = tuple((pattern(form, re.IGNORECASE), kinds) for form, kinds in FORMS)
PAPER = r"lease|licence|license|contract|agreement|deed|policy|facility|loan|terms"
FRAME = pattern(
    rf",?\s*\b(?:(?:without|excluding|exclusive\s+of|leaving\s+out)\s+(?:any\s+)?(?:tax|vat|gst)|before\s+(?:vat|gst))\b|,?\s*\b(?:tax|vat|gst)\s+(?:included|in)\s*(?=\?)|,?\s*\b(?:including|inclusive\s+of|with)\s+(?:the\s+)?(?:tax|vat|gst)\b(?=\s*\?)|,?\s*\bwhen\s+(?:it\s+was\s+|they\s+were\s+)?first\s+\w+ed\b|,?\s*\b(?:if|unless)\s+(?:(?:it|they)\s+(?:is|are)\s+)?(?:not\s+)?(?:ended|terminated|stopped|cancelled|determined|brought\s+to\s+an\s+end)\s+(?:sooner|earlier|early|before)\b"
    rf"|,?\s*\b(?:when|as|at\s+the\s+time(?:\s+when)?)\s+(?:the\s+|this\s+)?(?:{PAPER})\s+was\s+(?:first\s+)?(?:signed|made|granted|concluded|agreed|entered\s+into|taken\s+out)\b"
    rf"|,?\s*\b(?:as\s+(?:first|originally)\s+(?:signed|agreed|drafted|granted)|at\s+(?:signing|signature|inception|the\s+outset|the\s+start|the\s+beginning|first)(?=\s*\?)|at\s+(?:signing|signature|inception|the\s+outset)|(?:in|under)\s+the\s+original\s+(?:{PAPER})|\(original\s+terms\)|originally)\b"
    rf"|\A\W*(?:set\s+out|lay\s+out|write\s+out|put\s+down|show|list|name|give|state|tabulate|spell\s+out)\s+(?:me\s+)?(?=(?:the|all|each|every|its|their|any|in)\b)"
    r"|(?<=\w)\s+(?:look\s+)?like\s*(?=\?)"
    rf"|\b(?:according\s+to\s+the\s+\w+|please|tell\s+me|what\s+does\s+.{{2,40}}?\s+say\s+(?:on|about)|does\s+.{{2,30}}?\s+say|on\s+what|in\s+what|{AUXILIARY}\s+there)\b",
    re.IGNORECASE,
)
# Words that only say what kind of answer is wanted, where they stand in the asking itself: "how late", "on what date".
ASKING = pattern(
    r"\bhow\s+(?:long|soon|fast|quickly|late|early|often|many|much|big|large)\b"
    r"|\b(?:on|by|from|until|before|after|at|since|up\s+to|for|in)\s+(?:what|which)\s+date\b"
    r"|\b(?:what|which)\s+(?:(?:is|was|are|were)\s+the\s+)?(?:days?|time|percentage|share|proportion|slice|portion|fraction|company|firm|name)\b(?:\s+of\b)?",
    re.IGNORECASE,
)
WHAT_LED_TO = pattern(
    r"\A(?:and\s+)?what\s+(?:started|triggered|set\s+off|led\s+to|brought\s+(?:on|about)|gave\s+rise\s+to)\b",
    re.IGNORECASE,
)
HOW_LIKELY = pattern(r"\bhow\s+(?:likely|probable)\b", re.IGNORECASE)
TILL_WHEN = pattern(r"\b(?:until|till|up\s+to)\s+(?:when|what\s+date)\b", re.IGNORECASE)
GOES_ON = pattern(r"\b(?:runs?|lasts?|continues?|goes?\s+on|stays?\s+in\s+force|is\s+valid)\b", re.IGNORECASE)
EXHAUSTIVE = pattern(r"\b(?:all|every|each|list|any\s+other)\b", re.IGNORECASE)
OPENING = pattern(
    r"\A(?:according\s+to|in|at|by|under|as\s+to|for)\s(?!(?:what|which|whom|how)\b)[^,?]{3,40},\s+", re.IGNORECASE
)
FOLLOWS = pattern(r"\A(?:and|but|so)\b|\A(?:what|how)\s+about\b", re.IGNORECASE)
POINTS_BACK = pattern(
    r"\b(?:it|its|that(?!\s+(?:the|an?|our|your|their|each|any)\s)|(?<=\bis\s)that|(?<=\bwas\s)that|(?<=\bdoes\s)that|(?<=\bdid\s)that|(?<=\bwill\s)that|this|they|them|then|(?<!is\s)(?<!are\s)(?<!was\s)(?<!were\s)there|these|those|he|she|his|her|does\s+not)\b",
    re.IGNORECASE,
)
# "On how much notice?" goes on with what was asked before it.
_no_auxiliary = r"\s+(?!is|are|was|were|do|does|did|has|have|had|may|can|must|shall|will|would|should|could)\w+"
NO_VERB = pattern(
    r"(?:(?:on|with|under|by|for|at|within|until|from|to|in|of|after|before|over|above|below)\s+(?:what|which|whose|how\s+\w+)"
    rf"(?:{_no_auxiliary}){{1,2}}|(?:what|which|whose){_no_auxiliary})\s*\?",
    re.IGNORECASE,
)
# "And how long is the term?" may as well be asked by itself.
WHOLE_QUESTION = pattern(
    rf"(?:and|but|so)\s+(?:(?:on|with|under|by|for|at|until|from|to|in|of)\s+)?(?:who|whom|what|which|when|where|why|how\s+\w+)\s+(?:\w+\s+){{0,2}}?{AUXILIARY}\b",
    re.IGNORECASE,
)
# "Which references does it give?": it is the paper, whatever was asked before.
OF_THE_PAPER = pattern(
    r"(?:which|what)\s+[a-z][\w\s’'-]{2,40}?\s(?:does|do|did)\s+(?:it|they)\s+(?:give|state|say|list|name|show|mention|contain|include|offer|provide|set\s+out|cite)\s*\?",
    re.IGNORECASE,
)
PERSONS = frozenset(("he", "she", "his", "her"))
LEAST_PART = 3  # words of the first of two questions in one
FEW_IDEAS = 2
WHOLLY = 0.7  # ideas of less weight only frame the question
LEANING = 0.5  # what the words of the question before count
NOT_OURS = pattern(
    r"\b(?:capital\s+of|(?:what|how)(?:['’]s|\s+is|\s+will)\s+the\s+weather|weather\s+(?:today|tomorrow|forecast)|who\s+won|president\s+of\s+(?:the\s+)?(?:united|france|usa)|population\s+of|recipe|joke|poem|translate|stock\s+price\s+today|latest\s+news|meaning\s+of\s+life)\b",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Question:
    """text: as asked. kinds: the kinds of answer that it may want, likeliest first: a value's type, "time", "list" or "text".

    ideas: what to look for. exhaustive: all places are wanted. outside: it asks about the world, not about documents.
    """

    text: str
    kinds: tuple[str, ...]
    ideas: tuple[Idea, ...]
    id: str = ""
    exhaustive: bool = False
    outside: bool = False
    sure: bool = True  # the form of the question says the kind
    leans: bool = False  # on the question before it
    alone: Question | None = None  # the same by itself, where it may as well stand so: "when does it end?"
    before: Question | None = None  # the one that it leans on

    @property
    def reads_alone(self) -> bool:
        """True where it is read by itself as readily: it points back to nothing but a person, about whom the paper may be as a
        whole, or is a whole question behind its "and".
        """
        back = {m.group().lower() for m in POINTS_BACK.finditer(self.text)}
        return back <= PERSONS and (bool(back) or WHOLE_QUESTION.match(self.text) is not None)

    @property
    def parts(self) -> tuple[Question, Question] | None:
        """The two questions that it asks at once, the second leaning on the first; None where it asks one."""
        second = SECOND_PART.search(self.text)
        if second is None or YES_NO.match(self.text) or len(self.text[: second.start()].split()) < LEAST_PART:
            return None
        first = understand(f"{self.text[: second.start()].rstrip(' ,')}?")
        return first, understand(second["part"], "", first)

    @property
    def elliptical(self) -> bool:
        """True where it only names another thing or case to ask the same of: "and for a depot?"."""
        return self.before is not None and FOR_ANOTHER.fullmatch(self.text) is not None

    @property
    def thing(self) -> Idea | None:
        """The idea of the thing that is asked for by name, "deposit" in "which deposit was paid?"; None where none is."""
        named = thing_asked(self.text)
        head = stems_of(named.split()[-1]) if named else ()
        return next((i for i in self.ideas if head and head[0] in i.name), None)

    @property
    def deed(self) -> Idea | None:
        """The idea of what is done at the time asked for, "mature" in "when does the loan mature?"; None in other questions."""
        words = WHEN_DONE.match(self.text)
        last = stems_of(words["deed"]) if words is not None else ()
        return next((i for i in self.ideas if last and last[-1] in i.name), None)

    @property
    def compound(self) -> tuple[Idea, ...]:
        """The ideas of a thing that is asked for by two or more words, "relocation allowance"; none for one word."""
        named = thing_asked(self.text)
        words = frozenset(stems_of(named))
        parts = tuple(
            i
            for i in self.ideas
            if i.weight >= WHOLLY and words.issuperset(i.name) and not SAY_LITTLE.issuperset(i.name)
        )
        return parts if len(parts) > 1 else ()

    @property
    def stems(self) -> frozenset[str]:
        return frozenset(w for idea in self.ideas for w in idea.name)


def thing_asked(words: str) -> str:
    """The words of the thing that a question asks for by name; "" where it names none. A verb behind it is none of them:
    "which courts decide", "what spend triggers the rebate".
    """
    found = MEASURED.search(words)
    if found is None:
        return ""
    *name, last = found["thing"].split()
    if name and not HAS_VERB.search(words):
        goes_on = bool(words[found.end() :].strip(" ?.!"))
        if (last.endswith("s") and goes_on) or (name[-1].endswith("s") and not last.endswith("s")):
            return " ".join(name)
    return found["thing"]


def _is_year(idea: Idea) -> bool:
    return len(idea.name) == 1 and YEAR.fullmatch(idea.name[0]) is not None


def understand(text: str, name: str = "", before: Question | None = None) -> Question:
    """The question in these words. before: the one asked before it, which "And in the first year?" leans on."""
    words = " ".join(text.split())
    if before is not None and (time := ONLY_A_TIME.fullmatch(words)) is not None:  # "and the year before?"
        return replace(understand(f"{before.text.rstrip(' ?.')} {time['time']}?"), id=name)
    kinds, sure = kinds_of(words)
    ideas = _ideas(words)
    if kinds[0] == "money" and (each := EACH_TIME.search(words)) is not None:  # said of any sum by the year
        ideas = tuple(
            replace(i, weight=i.weight * ASKED_WEIGHT) if i.name == (stem(each["unit"]),) else i for i in ideas
        )
    leans = before is not None and bool(
        FOLLOWS.search(words)
        or WHAT_IT_WAS.match(words)
        or not ideas
        or (
            len(ideas) <= FEW_IDEAS
            and ((POINTS_BACK.search(words) and not OF_THE_PAPER.fullmatch(words)) or NO_VERB.fullmatch(words))
        )
    )
    alone = None
    if before is not None and leans:
        if ideas and (not FOLLOWS.search(words) or WHOLE_QUESTION.match(words)):
            alone = Question(
                words, kinds, ideas, name, bool(EXHAUSTIVE.search(words)), bool(NOT_OURS.search(words)), sure
            )
        if (
            WHEN_IT_IS.match(words)
            or (not sure and THING_DONE.fullmatch(words))
            or (not sure and kinds == ("text",) and WHAT_IT_WAS.match(words))
        ):
            kinds, sure = before.kinds, before.sure
        elif not sure and FOLLOWS.search(words):
            kinds, sure = _of_the_thing(words) or before.kinds, before.sure
        have = {i.name for i in ideas}
        dated = any(_is_year(i) for i in ideas)
        ideas = (
            *ideas,
            *(
                replace(i, weight=i.weight * LEANING, carried=True)
                for i in before.ideas
                if i.name not in have
                and not (dated and _is_year(i))  # a year of its own takes the place of that before
            ),
        )
    outside = bool(NOT_OURS.search(words))
    return Question(
        words,
        kinds,
        ideas,
        name,
        bool(EXHAUSTIVE.search(words)),
        outside,
        sure,
        leans,
        alone,
        _itself(before) if leans else None,
    )


def _itself(question: Question | None) -> Question | None:
    """A question without the one that it leans on itself, so that a long row of follow-ups nests no deeper."""
    return replace(question, before=None) if question is not None and question.before is not None else question


# "And if there is a recall?" names a case, not the thing that is asked, which is that of the question before.
ONLY_A_CASE = pattern(r"\A(?:and|but|so|what|how\s+about)\s+(?:if|once|unless|in\s+case)\b", re.IGNORECASE)
# "And when it is commissioned?" names a case too: a question would open "and when is it".
WHEN_IT_IS = pattern(
    r"(?:and|but|so)\s+(?:when|where)\s+(?:it|they|he|she|we|you|(?:the|an?|its|their|our)\s+[\w’'-]+(?:\s+[\w’'-]+)?)\s+(?:is|are|was|were|has|have|had|does|do|gets?|becomes?)\b",
    re.IGNORECASE,
)
# "And a claim made?" goes on with "how soon must damage be reported": the same is asked of another deed.
THING_DONE = pattern(
    r"(?:and|but|so)\s+(?:an?|the|its|their|our)\s+(?:[\w’'-]+\s+){1,2}(?:[a-z]{2,}ed|made|paid|sent|given|told|done|kept|held|sold|built|begun|put|set|let|left|taken|brought|lost|won|met|read)\W*",
    re.IGNORECASE,
)
FOR_ANOTHER = pattern(
    r"(?:and|but|so)\s+(?:(?:for|to|from|on|in|at|with|by|of)\s+)?(?!(?:what|which|when|who|whom|whose|why|where|how|if)\b)(?:an?|the|its|their|our|each|other)\s+(?:(?!(?:is|are|was|were|does|do|has|have|may|can|must|shall|will)\b)[\w’'-]+\s*){1,4}\?",
    re.IGNORECASE,
)
# "What was that three years ago?" asks for the same kind of thing as before.
WHAT_IT_WAS = pattern(
    r"(?:and\s+|but\s+)?what\s+(?:is|was|were|are|had|will|would)\s+(?:it|that|this|they|these|those)\b(?!\s+(?:for\W*\Z|about|called|like|made|said|worth|\w+ed\b))",
    re.IGNORECASE,
)
# "And the year before?" asks the same of another time.
ONLY_A_TIME = pattern(
    r"(?:and|but)\s+(?:what\s+about\s+)?(?:in\s+|for\s+|was\s+it\s+|what\s+was\s+it\s+)?(?P<time>the\s+(?:year|half|half-year|quarter|month|period)\s+before|(?:a|one)\s+year\s+(?:ago|earlier|before)|last\s+year|(?:the\s+)?(?:previous|prior|preceding)\s+(?:year|half|quarter|month|period))\W*",
    re.IGNORECASE,
)
DAMAGE = pattern(r"\bdamage\b", re.IGNORECASE)  # is no sum, as damages are


def _of_the_thing(words: str) -> tuple[str, ...]:
    """The kinds in which is given what a question names that goes on with the one before: "and the yield at year end?"."""
    if ONLY_A_CASE.search(words):
        return ()
    named = stems_of(DAMAGE.sub("", OF_WHAT.split(FOLLOWS.sub("", words))[0]))
    return ("percent", "number") if is_share(named) else _kinds_of_words(named)


def kinds_of(words: str) -> tuple[tuple[str, ...], bool]:
    """The kinds of answer that a question wants, likeliest first, and whether its form says so."""
    part = SECOND_PART.search(words)
    asked = part["part"] if part and YES_NO.match(words) else words
    asked = OPENING.sub("", asked)
    if YES_NO.match(asked):
        return ("yes_no",), True
    if WHAT_LED_TO.match(asked):
        return ("text",), True
    if WHICH_DAYS.match(asked):
        return ("date", "list", "text"), True
    if FOR_EACH.search(asked):
        return ("schedule", "money", "list", "text"), True
    if SIZE_OF_SUM.search(asked):
        return ("money", "percent", "number"), True
    measured = thing_asked(asked)
    named = stems_of(measured)[-1:]
    if is_share(named):
        return ("percent", "number"), True
    if (sized := HOW_BIG.search(asked)) and not IN_UNITS.search(asked):
        named = stems_of(OF_WHAT.split(sized["thing"])[0])
        of_sum = ("money",) if _lent & set(named) else _kinds_of_words(tuple(reversed(named)))
        return (*of_sum, *(k for k in ("number", "percent", "money") if k not in of_sum)), True
    if units_asked(named) - RATIO:
        return ("number", "money", "percent", "text") if FOR_ONE.search(asked) else ("number", "percent", "text"), True
    if (much := HOW_MUCH_OF.search(asked)) and not _kinds_of_words(_as_called(much["thing"])):
        by_name = kinds_by_name(much["thing"])
        if not {"money", "percent", "duration"} & set(by_name):
            return ("number", "money", "percent"), True
    thing = stems_of(measured)
    head = stems_of(measured.split()[-1]) if measured else ()
    if WHICH.match(asked) and not _told_apart.isdisjoint(head):
        return ("text",), True
    if _kinds_of_words(head)[:1] == ("date",):
        return ("date", "time", "duration", "text"), True
    if SUMS.match(asked):
        return (*(_kinds_of_words(head) or ("money", "number")), "list", "text"), True
    for form, kinds in _forms:
        if form.search(asked):
            return kinds, True
    if part and IT.fullmatch(part["part"].strip(" ?,.")) and (kinds := _kinds_of_words(stems_of(words))):
        return kinds, True
    around = () if WHICH.match(asked) else tuple(reversed(thing))  # which budget line is no sum
    if not BY_VERB.match(asked) and (kinds := _kinds_of_words(head) or _kinds_of_words(around)):
        return (*kinds, "text"), False
    deed = BY_VERB.match(asked)
    if deed:
        return (*_kinds_of_words(stems_of(OF_WHAT.split(deed["deed"])[0])), "text"), False
    if units_asked(stems_of(asked)):
        return ("number", "text"), False
    if measured:
        if WHICH.match(asked):
            return ("text",), True
        by_head = kinds_by_name(" ".join(head)) or kinds_by_name(measured)
        return (*(k for k in by_head if k != "party"), "text"), False
    named_kinds = kinds_by_name(asked)
    if WHAT.match(asked):  # a thing is asked for, and no person
        named_kinds = tuple(k for k in named_kinds if k in ("money", "percent", "number"))
    return (*named_kinds, "text"), False


def _as_called(words: str) -> tuple[str, ...]:
    """The stems of some words and of the single words that mean the same."""
    return tuple(w for i in ideas_of(words, loosely=False) for way, _ in i.ways for w in way)


def _kinds_of_words(stems: tuple[str, ...]) -> tuple[str, ...]:
    """The kinds in which the first of some words that tells is given: a price is money."""
    return next((_given_as[s] for s in stems if s in _given_as), ())


def _ideas(words: str) -> tuple[Idea, ...]:
    """What to look for: the ideas of a question without the words that only ask or frame it."""
    plain = _unframed(words)
    measured = tuple(replace(i, weight=ASKED_WEIGHT) for m in HOW.finditer(words) for i in ideas_of(m["what"]))
    found = tuple(
        replace(i, weight=_light.get(i.name[0], 1.0) if len(i.name) == 1 else LIGHT_PHRASES.get(i.name, i.weight))
        for i in _plain_ideas(words, plain)
    )
    if WHO_GIVES.match(words):  # "provides" alone says nothing of what is provided
        found = (*found, *ideas_of("provider"))
    if (does := WHO_DOES.match(words)) is not None:  # "who audits it": its auditors
        found = tuple(_with_doer(i) if i.name == (stem(does["deed"]),) else i for i in found)
    if MORE.search(words):  # "how much more was deposited": what was added to it
        found = (*found, *(replace(i, weight=MORE_WEIGHT) for i in ideas_of("additional")))
    if (added := ADDED.search(words)) is not None:
        found = tuple(replace(i, weight=1.0) if i.name == (stem(added["what"]),) else i for i in found)
    if IS_PAYABLE.search(words):  # what is paid of a named sum says nothing more of it
        found = tuple(replace(i, weight=i.weight * ASKED_WEIGHT) if i.name == PAY else i for i in found)
    if (unit := MANY_UNITS.search(words)) is not None:  # any length in days says "days"
        found = tuple(
            replace(i, weight=i.weight * ASKED_WEIGHT) if i.name == (stem(unit["unit"]),) else i for i in found
        )
    if (costs := WHAT_IT_COSTS.search(words)) is not None:  # any sum is a cost
        found = tuple(
            replace(i, weight=i.weight * COSTS_WEIGHT) if i.name == (stem(costs["deed"]),) else i for i in found
        )
    if (runs := HOW_LONG_IT_RUNS.search(words)) is not None:  # "the last claim" lasts no time
        found = tuple(
            replace(i, weight=i.weight * ASKED_WEIGHT) if i.name == (stem(runs["deed"]),) else i for i in found
        )
    if (kept := WHERE_KEPT.match(words)) is not None:  # "place of data": that it is kept there goes without saying
        found = tuple(
            replace(i, weight=i.weight * ASKED_WEIGHT) if i.name == (stem(kept["deed"]),) else i for i in found
        )
    if OF_CODE.search(words):  # "policy number": the label may say "Policy" alone
        found = tuple(replace(i, weight=i.weight * ASKED_WEIGHT) if i.name in CODE_WORDS else i for i in found)
    return (*found, *(i for i in measured if i.name not in {f.name for f in found})) or ideas_of(words)


# "May the bank transfer the deed?" asks of no bank transfer.
SUBJECT_THEN_VERB = pattern(
    r"\A(?:and\s+|but\s+|so\s+)?(?:may|can|could|must|shall|should|will|would|does|do|did|has|have|had)\s+(?:the|an?|our|your|their|its)\s+"
    r"(?P<subject>[a-z]+)\s+(?P<verb>[a-z]+)\s+(?:the|an?|any|it|its|this|that|these|those|our|your|their|his|her|them|us)\b",
    re.IGNORECASE,
)


def _plain_ideas(words: str, plain: str) -> tuple[Idea, ...]:
    """The ideas of a question's plain words; its subject makes no phrase with its verb."""
    found = ideas_of(plain)
    apart = SUBJECT_THEN_VERB.match(words)
    pair = (stem(apart["subject"]), stem(apart["verb"])) if apart is not None else ()
    at = plain.find(apart["verb"]) if apart is not None and any(i.name == pair for i in found) else -1
    if at < 0:
        return found
    first = ideas_of(plain[:at])
    return (*first, *(i for i in ideas_of(plain[at:]) if i not in first))


WHO_DOES = pattern(
    r"\W*(?:and\s+)?who\s+(?:(?:will|shall|may|can|must|does|did|is\s+to)\s+)?(?P<deed>(?!is\b|are\b|was\b|were\b|has\b|have\b|had\b)[a-z]{4,})\b",
    re.IGNORECASE,
)
DOER = ("er", "or", "ant", "ent", "ar")  # endings of nouns for those who do something


def _with_doer(idea: Idea) -> Idea:
    """The idea of a deed, for which the word for who does it stands as well as the deed itself."""
    root = idea.name[0].rstrip("eiy")
    ways = tuple(
        (
            way,
            1.0
            if len(way) == 1 and way[0] != idea.name[0] and way[0].startswith(root) and way[0].endswith(DOER)
            else worth,
        )
        for way, worth in idea.ways
    )
    return replace(idea, ways=ways)


WHO_GIVES = pattern(r"\W*(?:and\s+)?who(?:m|ever)?\s+(?:will\s+|shall\s+|is\s+to\s+)?provides?\b", re.IGNORECASE)
MORE = pattern(r"\bhow\s+(?:much|many)\s+(?:more|extra|further)\b(?!\s+than\b)", re.IGNORECASE)
MORE_WEIGHT = 0.7
ADDED = pattern(r"\b(?:the|an?|this|that)\s+(?P<what>added|extra)\s+\w", re.IGNORECASE)
IS_PAYABLE = pattern(
    r"\A(?:and\s+)?(?:what|which|how\s+much)\s+(?!is\b|are\b|does\b|do\b)\w.*\b(?:is|are|was|were)\s+(?:payable|charged|due)\s*\?",
    re.IGNORECASE,
)
WHERE_KEPT = pattern(
    r"\A(?:and\s+)?where\s+(?:is|are|was|were|will|must|shall)\s.*?\b(?P<deed>kept|held|stored|located|situated|based|found|hosted|housed|stand|stands|lies|lie)\W*\Z",
    re.IGNORECASE,
)
COSTS_WEIGHT = 0.6
WHAT_IT_COSTS = pattern(
    r"\bwhat\s+(?:does|did|do|will|would|can)\s+(?!(?:it|that|this|they|these)\b).*\b(?P<deed>cost)\W*\Z", re.IGNORECASE
)
EACH_TIME = pattern(r"\s(?:an?|per|each|every)\s+(?P<unit>year|month|week|day|quarter)\W*\Z", re.IGNORECASE)
HOW_LONG_IT_RUNS = pattern(r"\bhow\s+long\b.*\b(?P<deed>lasts?)\W*\Z", re.IGNORECASE)
MANY_UNITS = pattern(
    r"(?<!\bto\s)(?<!\bby\s)\bhow\s+many\s+(?:\w+\s+)?(?P<unit>days|weeks|months|years|hours|minutes)\b", re.IGNORECASE
)
PAY = (stem("payable"),)
CODE_WORDS = frozenset((stem(w),) for w in ("number", "code", "reference", "identifier"))
OF_CODE = pattern(r"\b(?:number|no\.?|code|reference|identifier)\b(?!\s+of\b)", re.IGNORECASE)


def stems_asked(words: str) -> frozenset[str]:
    """The stems of the ideas of a question, without the other words for them."""
    found = telling_words(_unframed(words)) or telling_words(words)
    return frozenset((*(t.stem for t in found), *(stem(m["what"]) for m in HOW.finditer(words))))


def _unframed(words: str) -> str:
    """A question without the words that only ask or frame it."""
    if TILL_WHEN.search(words):  # "until when does it run" asks for its end
        words = GOES_ON.sub(" ", TILL_WHEN.sub(" end ", words))
    words = WHAT_LED_TO.sub("cause of", HOW_LIKELY.sub("chance", words))
    return FRAME.sub(" ", ASKING.sub(" ", words))


@lru_cache(maxsize=1)
def _types_by_word() -> dict[str, Counter[str]]:
    """How often a word stands in the labels and names of the sheets' terms of each type."""
    out: dict[str, Counter[str]] = {}
    for name in shipped_sheets():
        for term in load_sheet(name).terms:
            if not term.line:
                continue
            for word in {*stems_of(term.label), *(w for a in term.asked for w in stems_of(a))}:
                out.setdefault(word, Counter())[term.type] += 1
    return out


@lru_cache(maxsize=4096)
def kinds_by_name(words: str) -> tuple[str, ...]:
    """The types of the things that some words name, by the sheets: "deposit" is money, "governing law" text."""
    votes: Counter[str] = Counter()
    for word in stems_of(words):
        found = _types_by_word().get(word)
        if found:
            total = sum(found.values())
            for kind, count in found.items():
                votes[kind] += count / total  # type: ignore[assignment]
    typed = [k for k, _ in votes.most_common() if k in ("money", "percent", "number", "duration", "date", "party")]
    text = votes["text"] + votes["list"]
    return tuple(typed[:3]) if typed and votes[typed[0]] > 0.35 * max(0.1, text) else ()
