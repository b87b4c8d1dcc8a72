// Made from the migrations by `npm run rows`; not to be changed by hand.

/** A list or an object as JSON text: read and written by a column of store/columns. */
export type Json = string;

/** A whole row of each table and view, as SQLite gives it. */
export interface Rows {
  account_links: {
    id: number;
    nonce: string;
  };
  account_numbers: {
    account:
      | "receivable"
      | "deposits"
      | "credit"
      | "refunds"
      | "card"
      | "bank"
      | "cash"
      | "cash out"
      | "sales"
      | "tax"
      | "tips"
      | "write-offs"
      | "gateway fees"
      | "on the way"
      | "disputed"
      | "cash differences"
      | "own";
    number: string;
  };
  additions: {
    id: number;
    job_id: number;
    made_at: number;
    words: string;
    photos: Json;
  };
  allocations: {
    invoice_id: number;
    payment_id: number;
    amount_minor: number;
    at: number;
    event_id: number;
  };
  audit: {
    id: number;
    at: number;
    actor: string;
    operation: string;
  };
  audit_changes: {
    id: number;
    audit_id: number;
    entity: string;
    row_key: string;
    before: string | null;
    after: string | null;
  };
  bank_lines: {
    id: number;
    key: string;
    date: string;
    amount_minor: number;
    name: string;
    words: string;
    state: "open" | "matched" | "set aside" | "posted";
    payment_id: number | null;
    payout_id: number | null;
    refund_id: number | null;
    recorded: 0 | 1;
    why: string;
    own_account_id: number | null;
    returned_id: number | null;
  };
  billed_lines: {
    job_id: number;
    invoice_id: number;
    shared: number;
    amount_minor: number;
  };
  business: {
    id: number;
    name: string;
    phone: string;
    mail: string;
    currency: string;
    prices_include_tax: 0 | 1;
    time_zone: string;
    lng: number;
    lat: number;
    notice_minutes: number;
    horizon_days: number;
    hold_minutes: number;
    deposit_minutes: number;
    travel_margin_minutes: number;
    travel_margin_percent: number;
    payment_days: number;
    message_from: number;
    message_to: number;
    demo_offset_ms: number | null;
    capacity: "route" | "count" | "open" | "ask";
    forecast_room: "full" | "half" | "none";
    winding_percent: number;
    kmh: number;
    labour_cost_minor: number;
    address: string;
    site: string;
    registration: string;
    tax_number: string;
    mark: string | null;
    week_start: number;
    clock_hours: 12 | 24;
    terms: string;
    quote_text: string;
    invoice_text: string;
    outside: "refuse" | "request";
    incoming_person_id: number | null;
    move_hours: number;
    cancel_hours: number;
    on_our_way_bp: number;
    keep_changes_days: number;
    unproved_percent: number;
    unproved_each: number;
    unproved_a_day: number;
    late_moves: "fee" | "refused";
    second_factor_roles: Json;
    repeat_months: number;
    promise_days: number;
    ask_days: number;
    ask_again_days: number;
    invoice_prefix: string;
    credit_prefix: string;
    bank_account: string;
    exempt_words: string;
    payment_from: "invoice" | "end of month";
    billing: "job" | "month" | "hand";
    quote_follow_ups: Json;
    late_fee_days: number | null;
    late_fee_minor: number;
    late_fee_bp: number;
    tips: 0 | 1;
    collects: 0 | 1;
    collect_weekdays: number;
    collect_at: number;
    collect_days: number;
    collect_smallest_minor: number;
    collect_cards: number;
    collect_again: Json;
    reminder_days: Json;
    card_most_minor: number | null;
    card_day_minor: number | null;
    parts_most: number;
    parts_from_minor: number;
    collect_new: 0 | 1;
    language: "en" | "es";
    most_messages: number;
    text_part_milli: number;
    counts_opened: 0 | 1;
    evening_at: number;
    morning_at: number;
    review_when: "never" | "done" | "paid";
    review_hours: number;
    review_rest_days: number;
    review_since: number | null;
    point_per_minor: number | null;
    point_minor: number;
    points_least: number;
    proved_each: number;
    danger_words: Json | null;
    urgent_minutes: number;
    books_closed_to: string | null;
    part_months: "whole" | "days";
    quick_answers: Json | null;
    return_fee_minor: number;
    zoned_to: number | null;
  };
  campaign_invites: {
    id: number;
    campaign_id: number;
    customer_id: number;
    site_id: number;
    nonce: string;
    invited_at: number;
    opened_at: number | null;
    job_id: number | null;
  };
  campaigns: {
    id: number;
    name: string;
    state: "draft" | "running" | "paused" | "ended";
    end_reason: string;
    service_id: number;
    coupon_id: number | null;
    audience: Json;
    texts: Json;
    first_date: string;
    last_date: string;
    at_minute: number;
    most_a_day: number;
    answer_days: number;
    next_at: number | null;
    made_by: string;
    made_at: number;
    began_at: number | null;
    ended_at: number | null;
  };
  cards: {
    id: number;
    customer_id: number;
    job_id: number;
    reference: string;
    label: string;
    kept_at: number;
    removed_at: number | null;
    expires: string | null;
    collects: 0 | 1;
    agreed_words: string;
    position: number;
    expiry_told: number | null;
    fingerprint: string | null;
  };
  categories: {
    name: string;
    position: number;
    hue: number;
    kind: string;
  };
  collection_items: {
    run_date: string;
    invoice_id: number;
    attempt: number;
    payment_id: number | null;
    card_id: number | null;
    left_out: string | null;
    followed: 0 | 1;
  };
  collection_notices: {
    invoice_id: number;
    run_date: string;
    amount_minor: number;
    card_id: number;
    told_at: number;
    objected_at: number | null;
  };
  collection_runs: {
    run_date: string;
    begun_at: number;
    ended_at: number | null;
  };
  consents: {
    id: number;
    customer_id: number;
    kind: "reminders" | "offers" | "card on file";
    given: 0 | 1;
    words: string;
    at: number;
    channel: "mail" | "text" | "voice" | null;
  };
  coupons: {
    id: number;
    code: string;
    kind: "percent" | "fixed";
    value: number;
    services: Json;
    first_date: string | null;
    last_date: string | null;
    most: number | null;
    active: 0 | 1;
  };
  credit_note_lines: {
    note_id: number;
    position: number;
    description: string;
    tax_bp: number;
    amount_minor: number;
    tax_minor: number;
  };
  credit_notes: {
    id: number;
    year: number;
    number: number;
    label: string;
    invoice_id: number;
    customer_id: number;
    issued_at: number;
    total_minor: number;
    tax_minor: number;
    reason: string;
    after_text: string;
    seller_id: number | null;
  };
  customer_tags: {
    id: number;
    customer_id: number;
    tag: string;
  };
  customer_texts: {
    id: number;
    name: string;
    phone: number;
    mail: number;
    places: number;
    tags: number;
    notes: number;
  };
  customers: {
    id: number;
    name: string;
    mail: string;
    phone: string;
    reminders: 0 | 1;
    since_at: number;
    offers: 0 | 1;
    merged_into: number | null;
    reached_by: "any" | "email" | "text" | "phone";
    source: string;
    payment_days: number | null;
    technician_note: string;
    inside_note: string;
    bill_name: string;
    bill_mail: string;
    bill_address: string;
    archived_at: number | null;
    erased_at: number | null;
    payment_from: "invoice" | "end of month";
    billing: "job" | "month" | "hand" | null;
    tax_kind: "standard" | "reverse charge" | "exempt";
    tax_number: string;
    collect_never: 0 | 1;
    language: "en" | "es" | null;
    time_zone: string | null;
    contacts: Json;
  };
  day_hours: {
    technician_id: number;
    date: string;
    opens: number;
    closes: number;
  };
  disputes: {
    id: number;
    reference: string;
    payment_id: number;
    amount_minor: number;
    reason: string;
    opened_at: number;
    answer_by: string | null;
    state: "open" | "won" | "lost";
    lost_minor: number;
    ended_at: number | null;
  };
  documents: {
    token: string;
    name: string;
    mime: string;
    bytes: Buffer;
    made_at: number;
  };
  errands: {
    id: number;
    technician_id: number;
    date: string;
    begins: number;
    ends: number;
    title: string;
    place: string;
    lng: number | null;
    lat: number | null;
  };
  extras: {
    id: number;
    name: string;
    unit: string;
    price_minor: number;
    cost_minor: number;
    tax_bp: number;
    active: 0 | 1;
  };
  failed_work: {
    job: string;
    subject: string;
    words: string;
    problem: string;
    state_then: string;
    failed_at: number;
  };
  fees: {
    job_id: number;
    description: string;
    amount_minor: number;
    tax_bp: number;
    tax_minor: number;
    made_at: number;
  };
  front_door: {
    id: number;
    welcome: string;
    picture: string | null;
    accent: string;
    ground: string;
    answers: Json;
    fields: Json;
    pays_at_door: 0 | 1;
    done_words: string;
    done_address: string;
    shows_contact: 0 | 1;
    takes_wishes: 0 | 1;
    sites: Json;
    listed: 0 | 1;
    tells: Json;
  };
  handovers: {
    id: number;
    technician_id: number;
    amount_minor: number;
    counted_at: number;
    counted_by: string;
    signature: string | null;
    difference_minor: number;
    difference_reason: string;
  };
  images: {
    token: string;
    purpose: "mark" | "technician" | "service" | "answer" | "door";
    mime: "image/png" | "image/jpeg";
    width: number;
    height: number;
    bytes: Buffer;
    made_at: number;
    from_address: string | null;
    used: 0 | 1;
  };
  import_keys: {
    import_id: number;
    key: string;
    number: number;
  };
  import_rows: {
    id: number;
    import_id: number;
    number: number;
    cells: Json;
    verdict: "waiting" | "wrong" | "new" | "certain" | "likely";
    problems: Json;
    same_id: number | null;
    same_row: number | null;
    decision: "take" | "join" | "leave out" | null;
    done: Json | null;
    kept: 0 | 1;
  };
  imports: {
    id: number;
    kind: "customers" | "services" | "extras" | "prices" | "repeats" | "bank lines";
    file: string;
    made_at: number;
    made_by: string;
    state: "filling" | "checking" | "checked" | "taking" | "stopped" | "taken" | "undoing" | "undone";
    columns: Json;
    row_count: number;
    balances: Json | null;
  };
  invoice_balances: {
    invoice_id: number;
    customer_id: number;
    job_id: number;
    due_date: string;
    applied_minor: number;
    credited_minor: number;
    open_minor: number;
  };
  invoice_lines: {
    invoice_id: number;
    position: number;
    job_id: number | null;
    description: string;
    quantity: number;
    unit_minor: number;
    tax_bp: number;
    amount_minor: number;
    tax_minor: number;
    discount_bp: number;
    date: string | null;
  };
  invoice_parts: {
    invoice_id: number;
    position: number;
    due_date: string;
    amount_minor: number;
  };
  invoices: {
    id: number;
    year: number;
    number: number;
    label: string;
    nonce: string;
    job_id: number | null;
    customer_id: number;
    issued_at: number;
    due_date: string;
    total_minor: number;
    tax_minor: number;
    remind_on: string | null;
    bill_name: string;
    bill_mail: string;
    bill_address: string;
    buyer_name: string;
    buyer_address: string;
    buyer_tax_number: string;
    tax_kind: "standard" | "reverse charge" | "exempt";
    tax_words: string;
    form_key: string | null;
    before_text: string;
    after_text: string;
    late_fee_on: string | null;
    late_fee_waived: string;
    fee_of_id: number | null;
    collect_never: 0 | 1;
    collect_on: string | null;
    collect_known: number;
    collect_card_id: number | null;
    seller_id: number | null;
    objected_at: number | null;
    objection: string;
    zero_kind: "zero rated" | "exempt";
  };
  job_balances: {
    job_id: number;
    asked_minor: number;
    received_minor: number;
    due_minor: number;
  };
  job_bills: {
    job_id: number;
    invoice_id: number;
    shared: number;
    amount_minor: number;
  };
  job_items: {
    job_id: number;
    position: number;
    service_id: number;
    quantity: number;
    answers: Json;
    extras: Json;
    terms: Json;
    total_minor: number;
    pattern_id: number | null;
  };
  job_lines: {
    job_id: number;
    position: number;
    description: string;
    quantity: number;
    unit_minor: number;
    tax_bp: number;
    amount_minor: number;
    tax_minor: number;
  };
  job_patterns: {
    id: number;
    name: string;
    items: Json;
    note: string;
    checklist: Json;
    minutes: number | null;
    crew: number | null;
    active: 0 | 1;
  };
  jobs: {
    id: number;
    customer_id: number;
    site_id: number;
    service_id: number;
    state: "awaiting deposit" | "agreed" | "done" | "cancelled";
    total_minor: number;
    tax_minor: number;
    deposit_minor: number;
    note: string;
    booked_at: number;
    booked_by: string;
    source: string;
    coupon_id: number | null;
    fields: Json;
    photos: Json;
    pays: "by invoice" | "at the door";
    approval: "given" | "waiting" | "proposed";
    handler_id: number | null;
    mail: string;
    phone: string;
    given_at: number | null;
    reminders: 0 | 1 | null;
    offers: 0 | 1 | null;
    name: string;
    proof: "known" | "none" | "asked" | "paid" | "given";
    code_hash: string | null;
    lapses_at: number | null;
    code_tries: number;
    from_address: string | null;
    from_browser: string | null;
    moved_fee_minor: number;
    instructions: string;
    to_bill: string | null;
    parts: number;
  };
  lanes: {
    lane: string;
    failures: number;
    failing_since: number;
    problem: string;
    paused_until: number;
  };
  ledger_chain: {
    event_id: number;
    hash: string;
  };
  ledger_entries: {
    event_id: number;
    line: number;
    account:
      | "receivable"
      | "deposits"
      | "credit"
      | "refunds"
      | "card"
      | "bank"
      | "cash"
      | "cash out"
      | "sales"
      | "tax"
      | "tips"
      | "write-offs"
      | "gateway fees"
      | "on the way"
      | "disputed"
      | "cash differences"
      | "own";
    amount_minor: number;
    invoice_id: number | null;
    payment_id: number | null;
    note_id: number | null;
    tax_bp: number | null;
    technician_id: number | null;
    own_account_id: number | null;
  };
  ledger_events: {
    id: number;
    key: string;
    kind:
      | "invoice"
      | "credit note"
      | "payment"
      | "allocation"
      | "released"
      | "refund asked"
      | "refund"
      | "write-off"
      | "cash handed over"
      | "reversal"
      | "tips paid"
      | "gateway fee"
      | "payout"
      | "payout arrived"
      | "dispute"
      | "dispute won"
      | "dispute lost"
      | "bank line";
    at: number;
    reason: string;
    reverses_id: number | null;
  };
  ledger_texts: {
    event_id: number;
    text: number;
  };
  limits: {
    scope: "business" | "zone" | "service" | "technician";
    subject_id: number;
    per: "window" | "day" | "week";
    most: number;
  };
  links: {
    id: number;
    job_id: number;
    nonce: string;
    made_at: number;
    revoked_at: number | null;
    copied_at: number | null;
  };
  messages: {
    id: number;
    occasion: string;
    kind: string;
    channel: "mail" | "text" | "voice";
    customer_id: number | null;
    thread_id: number | null;
    job_id: number | null;
    visit_id: number | null;
    window_from: number | null;
    repeat_id: number | null;
    invoice_id: number | null;
    opens: Json | null;
    recipient: string;
    language: string;
    subject: string;
    body: string;
    photos: Json;
    channels_left: Json;
    fields: Json | null;
    at_any_hour: 0 | 1;
    written_by: string | null;
    state: "waiting" | "sent" | "delivered" | "opened" | "bounced" | "failed" | "dropped" | "not known";
    problem: string;
    reference: string | null;
    parts: number;
    written_at: number;
    sent_at: number | null;
    delivered_at: number | null;
    opened_at: number | null;
    invite_id: number | null;
    settled_at: number | null;
    also_visits: Json;
  };
  money_calls: {
    id: number;
    invoice_id: number;
    at: number;
    said_by: string;
    words: string;
  };
  notes: {
    id: number;
    thread_id: number | null;
    visit_id: number | null;
    words: string;
    written_by: string;
    at: number;
  };
  occasions: {
    occasion: string;
    is_on: 0 | 1;
    channels: Json;
    each: 0 | 1;
    outside: "earlier" | "later" | "drop" | "other";
  };
  opening_hours: {
    weekday: number;
    opens: number;
    closes: number;
  };
  outbox: {
    id: number;
    kind: string;
    key: string;
    payload: Json;
    state: "ready" | "leased" | "done" | "given up";
    attempts: number;
    run_after: number;
    leased_until: number | null;
    last_problem: string | null;
    ended_at: number | null;
    lane: "cards" | "mail" | "text" | "voice" | "rest";
    asked_at: number;
  };
  own_accounts: {
    id: number;
    number: string;
    name: string;
    active: 0 | 1;
  };
  pattern_parts: {
    pattern_id: number;
    position: number;
    kind: "window" | "stepping" | "exact" | "continuous";
    weekdays: number;
    from_minute: number;
    to_minute: number;
    length: number | null;
    step: number | null;
  };
  patterns: {
    id: number;
    name: string;
  };
  pay_promises: {
    id: number;
    invoice_id: number;
    day: string;
    made_at: number;
    made_by: string;
    ended: "kept" | "broken" | "changed" | null;
  };
  payment_balances: {
    payment_id: number;
    customer_id: number;
    job_id: number;
    state: string;
    method: string;
    amount_minor: number;
    applied_minor: number;
    refunded_minor: number;
    left_minor: number;
  };
  payments: {
    id: number;
    customer_id: number;
    job_id: number | null;
    purpose: "deposit" | "invoice" | "account";
    method: "card" | "cash" | "bank" | "cheque";
    amount_minor: number;
    state: "asked" | "second step" | "received" | "declined" | "taken back";
    charge_key: string;
    gateway_reference: string | null;
    problem: string | null;
    step_address: string | null;
    asked_at: number;
    settled_at: number | null;
    keep_token: string | null;
    from_address: string | null;
    note: string;
    technician_id: number | null;
    handover_id: number | null;
    invoice_id: number | null;
    tip_minor: number;
    tip_for_id: number | null;
    card_how: "link" | "reader" | "typed" | "on file" | null;
    decline_kind: "later" | "another" | "never" | null;
    pays: Json;
  };
  payout_items: {
    payout_id: number;
    position: number;
    kind: "charge" | "refund" | "dispute";
    reference: string;
    payment_id: number | null;
    gross_minor: number;
    fee_minor: number;
  };
  payouts: {
    id: number;
    reference: string;
    amount_minor: number;
    fee_minor: number;
    paid_at: number;
    arrived_on: string | null;
  };
  people: {
    id: number;
    name: string;
    mail: string;
    password_hash: string;
    role: "owner" | "dispatcher" | "bookkeeper" | "technician";
    technician_id: number | null;
    active: 0 | 1;
    given: Json;
    taken: Json;
    totp_sealed: string | null;
    totp_step: number;
    recovery_hashes: Json;
  };
  placements: {
    visit_id: number;
    technician_id: number;
    date: string;
    drive_from: number;
    driving: number;
    arrives: number;
    leaves: number;
    settled: 0 | 1;
  };
  plan_changes: {
    technician_id: number;
    date: string;
    version: number;
  };
  points: {
    id: number;
    customer_id: number;
    kind: "paid" | "refunded" | "used" | "given back" | "by hand";
    points: number;
    payment_id: number | null;
    job_id: number | null;
    words: string;
    at: number;
  };
  possible_duplicates: {
    id: number;
    one_id: number;
    other_id: number;
    found_at: number;
    state: "open" | "two people" | "merged";
    moved: Json;
    filled: Json;
    terms: Json;
  };
  promises: {
    visit_id: number;
    made_at: number;
    window_from: number;
    window_to: number;
    ended_at: number | null;
    confirmed_at: number | null;
  };
  quotes: {
    id: number;
    request_id: number | null;
    made_at: number;
    made_by: string;
    name: string;
    mail: string;
    phone: string;
    line: string;
    postcode: string;
    lng: number;
    lat: number;
    zone_id: number | null;
    items: Json;
    note: string;
    photos: Json;
    lines: Json;
    words: string;
    total_minor: number;
    deposit_minor: number;
    minutes: number;
    crew: number;
    valid_until: string;
    state: "sent" | "accepted" | "booked" | "declined" | "withdrawn";
    answered_at: number | null;
    answer: string;
    handler_id: number | null;
    job_id: number | null;
    nonce: string;
    repeats: Json;
    options: Json;
    chosen: string;
    signs: 0 | 1;
    signed_by: string;
    signature: string | null;
    terms: string;
    follow_up_on: string | null;
    parts: number;
  };
  reader_asks: {
    key: string;
    visit_id: number;
    technician_id: number;
    amount_minor: number;
    tip_minor: number;
    asked_at: number;
    ended_at: number | null;
    payment_id: number | null;
  };
  recordings: {
    token: string;
    mime: string;
    bytes: Buffer;
    made_at: number;
  };
  refunds: {
    id: number;
    payment_id: number;
    method: "card" | "cash" | "bank" | "cheque";
    amount_minor: number;
    refund_key: string;
    state: "asked" | "refunded";
    asked_at: number;
    reason: string;
  };
  reminded: {
    visit_id: number;
    rule_id: number;
    window_from: number;
  };
  reminder_looks: {
    visit_id: number;
    looked_at: number;
    next_at: number;
  };
  reminder_rules: {
    id: number;
    days_before: number | null;
    at_minute: number | null;
    minutes_before: number | null;
    outside: "earlier" | "later" | "drop";
    asks: 0 | 1;
  };
  repeat_asks: {
    id: number;
    repeat_id: number;
    date: string;
    nonce: string;
    state: "asked" | "for us" | "booked" | "declined" | "closed";
    made_at: number;
    times: number;
    asked_on: string | null;
    answered_at: number | null;
    answer: string;
    job_id: number | null;
    handler_id: number | null;
  };
  repeat_batches: {
    id: number;
    words: string;
    made_at: number;
    made_by: string;
    undone_at: number | null;
  };
  repeat_bills: {
    repeat_id: number;
    period: string;
    invoice_id: number;
  };
  repeat_exceptions: {
    repeat_id: number;
    date: string;
    skip: 0 | 1;
    to_date: string | null;
    from_minute: number | null;
    to_minute: number | null;
    technician_id: number | null;
    pattern_id: number | null;
  };
  repeat_pauses: {
    id: number;
    repeat_id: number;
    first_date: string;
    last_date: string;
  };
  repeat_terms: {
    repeat_id: number;
    until_date: string;
    start_date: string;
    rule: string;
    from_minute: number;
    to_minute: number;
    technician_id: number | null;
    on_closed: "nearest" | "later" | "earlier" | "skip" | "ask";
  };
  repeats: {
    id: number;
    customer_id: number;
    site_id: number;
    service_id: number;
    technician_id: number | null;
    start_date: string;
    from_minute: number;
    to_minute: number;
    state: "active" | "ended";
    items: Json;
    ended_by_customer: 0 | 1;
    grow_on: string | null;
    grow_seen: number;
    rule: string;
    before_change: Json | null;
    comes: "set" | "flexible" | "ask";
    leeway_days: number | null;
    counted: "calendar" | "done";
    promise_days: number | null;
    asks: "customer" | "office";
    after_visit_id: number | null;
    end_reason: string;
    price_per: "catalogue" | "visit" | "month" | "year";
    price_minor: number | null;
    price_visits: number | null;
    value_minor: number;
    review_date: string | null;
    review_bp: number | null;
    review_notice_days: number | null;
    review_told_at: number | null;
    pattern_id: number | null;
    first_pattern_id: number | null;
    nth: number | null;
    nth_pattern_id: number | null;
    dates_before: number;
    agreed_with_id: number | null;
    batch_id: number | null;
    handler_id: number | null;
    on_closed: "nearest" | "later" | "earlier" | "skip" | "ask";
    bill_from: string | null;
    bill_since: string | null;
  };
  replies: {
    id: number;
    thread_id: number;
    customer_id: number | null;
    channel: "mail" | "text" | "voice" | "front door";
    key: string | null;
    sender: string;
    subject: string;
    body: string;
    received_at: number;
    mail_id: string | null;
    answers_id: number | null;
    understood: Json;
    photos: Json;
    recording: string | null;
    seconds: number | null;
  };
  requests: {
    id: number;
    made_at: number;
    about: "outside our zones" | "no window suits" | "a time to be agreed";
    address: string;
    lng: number | null;
    lat: number | null;
    name: string;
    mail: string;
    phone: string;
    wishes: string;
    answered_at: number | null;
    address_id: string | null;
    items: Json;
    photos: Json;
    wish: Json | null;
    handler_id: number | null;
    outcome: "open" | "answered" | "declined" | "booked" | "withdrawn";
    job_id: number | null;
    nonce: string;
    told: Json | null;
  };
  review_places: {
    id: number;
    name: string;
    address: string;
    position: number;
  };
  reviews: {
    id: number;
    job_id: number;
    customer_id: number;
    nonce: string;
    asked_at: number;
    rating: number | null;
    praise: string;
    trouble: string;
    answered_at: number | null;
    went_to: Json;
    reply: string;
    replied_by: string | null;
    replied_at: number | null;
    settled_at: number | null;
  };
  saved_views: {
    id: number;
    name: string;
    filter: Json;
    made_at: number;
  };
  security_events: {
    id: number;
    at: number;
    kind: string;
    who: string;
    words: string;
    address: string;
  };
  sellers: {
    id: number;
    told: Json;
  };
  senders: {
    channel: "mail" | "text" | "voice";
    name: string;
    address: string;
  };
  service_extras: {
    service_id: number;
    extra_id: number;
    position: number;
    most: number;
  };
  service_hours: {
    service_id: number;
    weekday: number;
    opens: number;
    closes: number;
  };
  service_skills: {
    service_id: number;
    skill_id: number;
    level: number;
  };
  service_technicians: {
    service_id: number;
    technician_id: number;
  };
  services: {
    id: number;
    code: string;
    name: string;
    category: string;
    description: string;
    price_minor: number;
    tax_bp: number;
    minutes: number;
    before_minutes: number;
    after_minutes: number;
    crew: number;
    deposit_kind: "none" | "percent" | "fixed" | "full";
    deposit_value: number;
    hue: number;
    active: 0 | 1;
    pattern_id: number | null;
    capacity: "route" | "count" | "open" | "ask" | null;
    notice_minutes: number;
    days: number;
    wish: "none" | "preferred" | "only";
    questions: Json;
    picture: string | null;
    price_kind: "fixed" | "from" | "quote";
    shows_price: 0 | 1;
    shows_minutes: 0 | 1;
    may_pay_all: 0 | 1;
    late_hours: number;
    late_fee_kind: "none" | "percent" | "fixed";
    late_fee_value: number;
    no_access_minor: number;
    hidden: 0 | 1;
    slug: string | null;
    checklist: Json;
    position: number;
    repeats: Json;
    confirm: 0 | 1;
    work_place: "site" | "ours" | "afar";
    seats: number;
    comes: "set" | "flexible" | "ask";
    promise_days: number | null;
    again_months: number | null;
    tells: string;
    other_names: Json;
  };
  sessions: {
    id: string;
    person_id: number;
    started_at: number;
    expires_at: number;
    ended_at: number | null;
    browser: string;
    address: string;
  };
  shared_times: {
    id: number;
    service_id: number;
  };
  short_links: {
    id: number;
    nonce: string;
    kind: string;
    opens_id: number;
    made_at: number;
  };
  sites: {
    id: number;
    customer_id: number;
    line: string;
    postcode: string;
    lng: number;
    lat: number;
    zone_id: number | null;
    access: string;
    name: string;
    parking: string;
    archived_at: number | null;
  };
  skills: {
    id: number;
    name: string;
  };
  sources: {
    slug: string;
    name: string;
    made_at: number;
  };
  special_days: {
    id: number;
    name: string;
    first_date: string;
    last_date: string;
    yearly: 0 | 1;
    spans: Json;
  };
  stops: {
    channel: "mail" | "text" | "voice";
    address: string;
    since: number;
    how: string;
  };
  tax_rates: {
    id: number;
    name: string;
    rate_bp: number;
    position: number;
    zero_kind: "zero rated" | "exempt";
    words: string;
  };
  technician_services: {
    technician_id: number;
    service_id: number;
  };
  technician_skills: {
    technician_id: number;
    skill_id: number;
    level: number;
    valid_until: string | null;
  };
  technician_zones: {
    technician_id: number;
    zone_id: number;
  };
  technicians: {
    id: number;
    name: string;
    phone: string;
    start_lng: number;
    start_lat: number;
    end_lng: number;
    end_lat: number;
    position: number;
    active: 0 | 1;
    kind: "employee" | "subcontractor";
    mail: string;
    photo: string | null;
    hue: number;
    start_line: string;
    end_line: string;
    offered: 0 | 1;
    most_minutes: number | null;
    pay_kind: "none" | "hourly" | "salary";
    pay_minor: number;
    pay_hours: number;
    employer_bp: number;
    tells: string;
  };
  templates: {
    occasion: string;
    channel: "mail" | "text" | "voice";
    language: "en" | "es";
    subject: string;
    body: string;
  };
  text_blocks: {
    id: number;
    paper: "invoice" | "quote" | "credit note" | "receipt" | "statement";
    place: "before" | "after";
    service_id: number | null;
    words: string;
  };
  threads: {
    id: number;
    customer_id: number | null;
    name: string;
    mail: string;
    phone: string;
    nonce: string;
    last_at: number;
    last_words: string;
    last_by: "them" | "us";
    waiting_since: number | null;
    unread: 0 | 1;
    handler_id: number | null;
    snoozed_until: number | null;
  };
  time_off: {
    id: number;
    technician_id: number;
    first_date: string;
    last_date: string;
    reason: string;
    from_minute: number | null;
    to_minute: number | null;
  };
  told_days: {
    technician_id: number;
    date: string;
    stops: Json;
    told_at: number;
  };
  tries: {
    key: string;
    n: number;
    ends_at: number;
  };
  unkept_promises: {
    visit_id: number;
    since: number;
    kept: 0 | 1;
  };
  visits: {
    id: number;
    state: "held" | "forecast" | "promised" | "on the way" | "on site" | "done" | "no access" | "cancelled";
    job_id: number | null;
    repeat_id: number | null;
    repeat_date: string | null;
    first_visit_id: number | null;
    service_id: number;
    zone_id: number | null;
    date: string;
    window_from: number;
    window_to: number;
    minutes: number;
    before_minutes: number;
    after_minutes: number;
    crew: number;
    meet_at: number | null;
    lng: number;
    lat: number;
    held_until: number | null;
    hold_key: string | null;
    started_at: number | null;
    ended_at: number | null;
    skills: Json;
    checklist: Json;
    confirmed_at: number | null;
    title: string;
    also: Json;
    on_our_way: 0 | 1;
    from_address: string | null;
    from_browser: string | null;
    work_place: "site" | "ours" | "afar";
    seats: number;
    shared_id: number | null;
    again_months: number | null;
    forecast_minor: number | null;
    room_asked: number | null;
    room_days: number;
  };
  withheld: {
    customer_id: number;
    purpose: "reminders" | "offers";
    channel: "mail" | "text" | "voice";
  };
  worker_marks: {
    name: string;
    position: number;
  };
  working_spans: {
    technician_id: number;
    weekday: number;
    opens: number;
    closes: number;
  };
  zone_postcodes: {
    zone_id: number;
    position: number;
    pattern: string;
  };
  zone_technicians: {
    zone_id: number;
    technician_id: number;
  };
  zones: {
    id: number;
    name: string;
    weekdays: number;
    serve_from: number;
    serve_to: number;
    notice_minutes: number;
    surcharge_minor: number;
    smallest_order_minor: number;
    active: 0 | 1;
    winding_percent: number | null;
    kmh: number | null;
    priority: number;
    area: Json | null;
    towns: Json;
    extra_minutes: number;
    serve_past: number;
  };
}

/** What a new row of a table may leave out: what has a default or may be null. */
export interface LeftOut {
  account_links: "id";
  account_numbers: never;
  additions: "id";
  audit: "id";
  audit_changes: "id" | "before" | "after";
  bank_lines:
    "id" | "state" | "payment_id" | "payout_id" | "refund_id" | "recorded" | "why" | "own_account_id" | "returned_id";
  business:
    | "id"
    | "demo_offset_ms"
    | "capacity"
    | "forecast_room"
    | "winding_percent"
    | "kmh"
    | "labour_cost_minor"
    | "address"
    | "site"
    | "registration"
    | "tax_number"
    | "mark"
    | "week_start"
    | "clock_hours"
    | "terms"
    | "quote_text"
    | "invoice_text"
    | "outside"
    | "incoming_person_id"
    | "move_hours"
    | "cancel_hours"
    | "on_our_way_bp"
    | "keep_changes_days"
    | "unproved_percent"
    | "unproved_each"
    | "unproved_a_day"
    | "late_moves"
    | "second_factor_roles"
    | "repeat_months"
    | "promise_days"
    | "ask_days"
    | "ask_again_days"
    | "invoice_prefix"
    | "credit_prefix"
    | "bank_account"
    | "exempt_words"
    | "payment_from"
    | "billing"
    | "quote_follow_ups"
    | "late_fee_days"
    | "late_fee_minor"
    | "late_fee_bp"
    | "tips"
    | "collects"
    | "collect_weekdays"
    | "collect_at"
    | "collect_days"
    | "collect_smallest_minor"
    | "collect_cards"
    | "collect_again"
    | "reminder_days"
    | "card_most_minor"
    | "card_day_minor"
    | "parts_most"
    | "parts_from_minor"
    | "collect_new"
    | "language"
    | "most_messages"
    | "text_part_milli"
    | "counts_opened"
    | "evening_at"
    | "morning_at"
    | "review_when"
    | "review_hours"
    | "review_rest_days"
    | "review_since"
    | "point_per_minor"
    | "point_minor"
    | "points_least"
    | "proved_each"
    | "danger_words"
    | "urgent_minutes"
    | "books_closed_to"
    | "part_months"
    | "quick_answers"
    | "return_fee_minor"
    | "zoned_to";
  campaign_invites: "id" | "opened_at" | "job_id";
  campaigns: "id" | "end_reason" | "coupon_id" | "next_at" | "began_at" | "ended_at";
  cards: "id" | "removed_at" | "expires" | "collects" | "agreed_words" | "position" | "expiry_told" | "fingerprint";
  categories: "kind";
  collection_items: "payment_id" | "card_id" | "left_out" | "followed";
  collection_notices: "objected_at";
  collection_runs: "ended_at";
  consents: "id" | "channel";
  coupons: "id" | "first_date" | "last_date" | "most";
  credit_note_lines: never;
  credit_notes: "id" | "after_text" | "seller_id";
  customer_tags: "id";
  customers:
    | "id"
    | "offers"
    | "merged_into"
    | "reached_by"
    | "source"
    | "payment_days"
    | "technician_note"
    | "inside_note"
    | "bill_name"
    | "bill_mail"
    | "bill_address"
    | "archived_at"
    | "erased_at"
    | "payment_from"
    | "billing"
    | "tax_kind"
    | "tax_number"
    | "collect_never"
    | "language"
    | "time_zone"
    | "contacts";
  day_hours: never;
  disputes: "id" | "answer_by" | "state" | "lost_minor" | "ended_at";
  documents: never;
  errands: "id" | "lng" | "lat";
  extras: "id";
  failed_work: never;
  fees: "job_id";
  front_door:
    | "id"
    | "welcome"
    | "picture"
    | "accent"
    | "ground"
    | "answers"
    | "fields"
    | "pays_at_door"
    | "done_words"
    | "done_address"
    | "shows_contact"
    | "takes_wishes"
    | "sites"
    | "listed"
    | "tells";
  handovers: "id" | "signature" | "difference_minor" | "difference_reason";
  images: "from_address" | "used";
  import_keys: never;
  import_rows: "id" | "verdict" | "problems" | "same_id" | "same_row" | "decision" | "done" | "kept";
  imports: "id" | "balances";
  invoice_lines: "job_id" | "discount_bp" | "date";
  invoice_parts: never;
  invoices:
    | "id"
    | "job_id"
    | "remind_on"
    | "bill_name"
    | "bill_mail"
    | "bill_address"
    | "buyer_name"
    | "buyer_address"
    | "buyer_tax_number"
    | "tax_kind"
    | "tax_words"
    | "form_key"
    | "before_text"
    | "after_text"
    | "late_fee_on"
    | "late_fee_waived"
    | "fee_of_id"
    | "collect_never"
    | "collect_on"
    | "collect_known"
    | "collect_card_id"
    | "seller_id"
    | "objected_at"
    | "objection"
    | "zero_kind";
  job_items: "pattern_id";
  job_lines: never;
  job_patterns: "id" | "note" | "checklist" | "minutes" | "crew" | "active";
  jobs:
    | "id"
    | "source"
    | "coupon_id"
    | "fields"
    | "photos"
    | "pays"
    | "approval"
    | "handler_id"
    | "mail"
    | "phone"
    | "given_at"
    | "reminders"
    | "offers"
    | "name"
    | "proof"
    | "code_hash"
    | "lapses_at"
    | "code_tries"
    | "from_address"
    | "from_browser"
    | "moved_fee_minor"
    | "instructions"
    | "to_bill"
    | "parts";
  lanes: never;
  ledger_chain: "event_id";
  ledger_entries: "invoice_id" | "payment_id" | "note_id" | "tax_bp" | "technician_id" | "own_account_id";
  ledger_events: "id" | "reason" | "reverses_id";
  limits: never;
  links: "id" | "revoked_at" | "copied_at";
  messages:
    | "id"
    | "customer_id"
    | "thread_id"
    | "job_id"
    | "visit_id"
    | "window_from"
    | "repeat_id"
    | "invoice_id"
    | "opens"
    | "photos"
    | "channels_left"
    | "fields"
    | "at_any_hour"
    | "written_by"
    | "problem"
    | "reference"
    | "parts"
    | "sent_at"
    | "delivered_at"
    | "opened_at"
    | "invite_id"
    | "settled_at"
    | "also_visits";
  money_calls: "id";
  notes: "id" | "thread_id" | "visit_id";
  occasions: never;
  opening_hours: never;
  outbox: "id" | "leased_until" | "last_problem" | "ended_at" | "lane" | "asked_at";
  own_accounts: "id" | "number" | "active";
  pattern_parts: "length" | "step";
  patterns: "id";
  pay_promises: "id" | "ended";
  payments:
    | "id"
    | "job_id"
    | "gateway_reference"
    | "problem"
    | "step_address"
    | "settled_at"
    | "keep_token"
    | "from_address"
    | "note"
    | "technician_id"
    | "handover_id"
    | "invoice_id"
    | "tip_minor"
    | "tip_for_id"
    | "card_how"
    | "decline_kind"
    | "pays";
  payout_items: "payment_id";
  payouts: "id" | "fee_minor" | "arrived_on";
  people: "id" | "technician_id" | "given" | "taken" | "totp_sealed" | "totp_step" | "recovery_hashes";
  placements: never;
  plan_changes: never;
  points: "id" | "payment_id" | "job_id" | "words";
  possible_duplicates: "id" | "moved" | "filled" | "terms";
  promises: "ended_at" | "confirmed_at";
  quotes:
    | "id"
    | "request_id"
    | "zone_id"
    | "photos"
    | "state"
    | "answered_at"
    | "answer"
    | "handler_id"
    | "job_id"
    | "repeats"
    | "options"
    | "chosen"
    | "signs"
    | "signed_by"
    | "signature"
    | "terms"
    | "follow_up_on"
    | "parts";
  reader_asks: "ended_at" | "payment_id";
  recordings: never;
  refunds: "id";
  reminded: never;
  reminder_looks: "visit_id";
  reminder_rules: "id" | "days_before" | "at_minute" | "minutes_before";
  repeat_asks: "id" | "times" | "asked_on" | "answered_at" | "answer" | "job_id" | "handler_id";
  repeat_batches: "id" | "undone_at";
  repeat_bills: never;
  repeat_exceptions: "to_date" | "from_minute" | "to_minute" | "technician_id" | "pattern_id";
  repeat_pauses: "id";
  repeat_terms: "technician_id" | "on_closed";
  repeats:
    | "id"
    | "technician_id"
    | "items"
    | "ended_by_customer"
    | "grow_on"
    | "grow_seen"
    | "rule"
    | "before_change"
    | "comes"
    | "leeway_days"
    | "counted"
    | "promise_days"
    | "asks"
    | "after_visit_id"
    | "end_reason"
    | "price_per"
    | "price_minor"
    | "price_visits"
    | "value_minor"
    | "review_date"
    | "review_bp"
    | "review_notice_days"
    | "review_told_at"
    | "pattern_id"
    | "first_pattern_id"
    | "nth"
    | "nth_pattern_id"
    | "dates_before"
    | "agreed_with_id"
    | "batch_id"
    | "handler_id"
    | "on_closed"
    | "bill_from"
    | "bill_since";
  replies:
    | "id"
    | "customer_id"
    | "key"
    | "subject"
    | "mail_id"
    | "answers_id"
    | "understood"
    | "photos"
    | "recording"
    | "seconds";
  requests:
    | "id"
    | "lng"
    | "lat"
    | "answered_at"
    | "address_id"
    | "items"
    | "photos"
    | "wish"
    | "handler_id"
    | "outcome"
    | "job_id"
    | "nonce"
    | "told";
  review_places: "id";
  reviews:
    | "id"
    | "rating"
    | "praise"
    | "trouble"
    | "answered_at"
    | "went_to"
    | "reply"
    | "replied_by"
    | "replied_at"
    | "settled_at";
  saved_views: "id";
  security_events: "id";
  sellers: "id";
  senders: never;
  service_extras: never;
  service_hours: never;
  service_skills: "level";
  service_technicians: never;
  services:
    | "id"
    | "pattern_id"
    | "capacity"
    | "notice_minutes"
    | "days"
    | "wish"
    | "questions"
    | "picture"
    | "price_kind"
    | "shows_price"
    | "shows_minutes"
    | "may_pay_all"
    | "late_hours"
    | "late_fee_kind"
    | "late_fee_value"
    | "no_access_minor"
    | "hidden"
    | "slug"
    | "checklist"
    | "position"
    | "repeats"
    | "confirm"
    | "work_place"
    | "seats"
    | "comes"
    | "promise_days"
    | "again_months"
    | "tells"
    | "other_names";
  sessions: "ended_at" | "browser" | "address";
  shared_times: "id";
  short_links: "id";
  sites: "id" | "zone_id" | "name" | "parking" | "archived_at";
  skills: "id";
  sources: never;
  special_days: "id";
  stops: never;
  tax_rates: "id" | "zero_kind" | "words";
  technician_services: never;
  technician_skills: "valid_until";
  technician_zones: never;
  technicians:
    | "id"
    | "kind"
    | "mail"
    | "photo"
    | "hue"
    | "start_line"
    | "end_line"
    | "offered"
    | "most_minutes"
    | "pay_kind"
    | "pay_minor"
    | "pay_hours"
    | "employer_bp"
    | "tells";
  templates: never;
  text_blocks: "id" | "service_id";
  threads:
    | "id"
    | "customer_id"
    | "name"
    | "mail"
    | "phone"
    | "nonce"
    | "waiting_since"
    | "unread"
    | "handler_id"
    | "snoozed_until";
  time_off: "id" | "from_minute" | "to_minute";
  told_days: never;
  tries: never;
  unkept_promises: "visit_id" | "kept";
  visits:
    | "id"
    | "job_id"
    | "repeat_id"
    | "repeat_date"
    | "first_visit_id"
    | "zone_id"
    | "meet_at"
    | "held_until"
    | "hold_key"
    | "started_at"
    | "ended_at"
    | "skills"
    | "checklist"
    | "confirmed_at"
    | "title"
    | "also"
    | "on_our_way"
    | "from_address"
    | "from_browser"
    | "work_place"
    | "seats"
    | "shared_id"
    | "again_months"
    | "forecast_minor"
    | "room_asked"
    | "room_days";
  withheld: never;
  worker_marks: never;
  working_spans: never;
  zone_postcodes: never;
  zone_technicians: never;
  zones: "id" | "winding_percent" | "kmh" | "priority" | "area" | "towns" | "extra_minutes" | "serve_past";
}
