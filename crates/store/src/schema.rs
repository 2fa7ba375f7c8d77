//! Tables as Diesel sees them; `migrations/` is where they are made.

diesel::table! {
    account (id) {
        id -> Text,
        login -> Text,
        name -> Text,
        role -> Text,
        password_hash -> Text,
        created_at -> Text,
        factor_secret -> Nullable<Text>,
        factor_step -> Nullable<BigInt>,
        measures -> Nullable<Text>,
    }
}

diesel::table! {
    browser_session (key) {
        key -> Text,
        state_json -> Text,
        expires_at_s -> BigInt,
    }
}

diesel::table! {
    setting (key) {
        key -> Text,
        value -> Text,
    }
}

diesel::table! {
    client (id) {
        id -> Text,
        brief_json -> Text,
        name -> Text,
        revision -> Integer,
        created_at -> Text,
        updated_at -> Text,
        usual_week_json -> Nullable<Text>,
        usual_week_revision -> Integer,
        put_away_on -> Nullable<Text>,
        next_round_on -> Nullable<Text>,
        note -> Text,
    }
}

diesel::table! {
    saved_week (id) {
        id -> Text,
        name -> Text,
        week_json -> Text,
        saved_by -> Text,
        saved_at -> Text,
    }
}

diesel::table! {
    round (id) {
        id -> Text,
        client_id -> Text,
        taken_on -> Text,
        measured_by -> Text,
        weight_kg -> Nullable<Double>,
        tape_revision -> Integer,
        tape_saved_by -> Nullable<Text>,
        tape_saved_at -> Nullable<Text>,
        choices_revision -> Integer,
        created_at -> Text,
        tests_json -> Text,
        tests_revision -> Integer,
        tests_saved_by -> Nullable<Text>,
        share_json -> Text,
        areas_json -> Text,
        note -> Text,
    }
}

diesel::table! {
    set_up (client_id, exercise) {
        client_id -> Text,
        exercise -> Text,
        kept_on -> Text,
        kept_by -> Text,
        kept_json -> Text,
    }
}

diesel::table! {
    message (id) {
        id -> Text,
        client_id -> Text,
        from_client -> Bool,
        written_by -> Text,
        written_at -> Text,
        words -> Text,
        read_at -> Nullable<Text>,
    }
}

diesel::table! {
    skinfold_reading (round_id, site, side, ordinal) {
        round_id -> Text,
        site -> Text,
        side -> Text,
        ordinal -> Integer,
        value_mm -> Double,
    }
}

diesel::table! {
    tape_level (round_id, site) {
        round_id -> Text,
        site -> Text,
        level_cm -> Double,
    }
}

diesel::table! {
    practice (id) {
        id -> Integer,
        settings_json -> Text,
        revision -> Integer,
        saved_by -> Nullable<Text>,
    }
}

diesel::table! {
    preference (account_id, key) {
        account_id -> Text,
        key -> Text,
        value_json -> Text,
    }
}

diesel::table! {
    tape_reading (round_id, site, side, ordinal) {
        round_id -> Text,
        site -> Text,
        side -> Text,
        ordinal -> Integer,
        value_cm -> Double,
    }
}

diesel::table! {
    region_choice (round_id, kind, ordinal) {
        round_id -> Text,
        kind -> Text,
        ordinal -> Integer,
        region -> Text,
        verdict -> Nullable<Text>,
        reason -> Nullable<Text>,
    }
}

diesel::table! {
    photo (id) {
        id -> Text,
        round_id -> Text,
        revision -> Integer,
        state -> Text,
        failure -> Nullable<Text>,
        pose -> Nullable<Text>,
        mirrored -> Nullable<Bool>,
        distance_m -> Nullable<Double>,
        format -> Text,
        width_px -> Integer,
        height_px -> Integer,
        byte_count -> Integer,
        sha256 -> Text,
        taken_at -> Nullable<Text>,
        added_by -> Text,
        added_at -> Text,
        found_json -> Nullable<Text>,
        moved_json -> Text,
        measured_json -> Nullable<Text>,
        chosen -> Bool,
    }
}

diesel::table! {
    girth_constant (site, rests_on) {
        site -> Text,
        rests_on -> Text,
        ln -> Double,
        pairs -> Integer,
        clients -> Integer,
    }
}

diesel::table! {
    picture_girth (round_id, site, side) {
        round_id -> Text,
        site -> Text,
        side -> Text,
        cm -> Double,
        rests_on -> Text,
    }
}

diesel::table! {
    picture_ask (round_id, pose) {
        round_id -> Text,
        pose -> Text,
        reason -> Text,
        asked_by -> Text,
        asked_at -> Text,
    }
}

diesel::table! {
    camera_set_up (client_id) {
        client_id -> Text,
        place -> Text,
        height_cm -> Double,
        distance_m -> Double,
        lens -> Text,
        kept_on -> Text,
    }
}

diesel::table! {
    outline (round_id, segment) {
        round_id -> Text,
        segment -> Text,
        left_width_cm -> Double,
        right_width_cm -> Double,
    }
}

diesel::table! {
    rating (round_id, region, pose, kind) {
        round_id -> Text,
        region -> Text,
        pose -> Text,
        kind -> Text,
        value -> Nullable<Integer>,
        rated_by -> Text,
        rated_at -> Text,
    }
}

diesel::table! {
    rating_repeat (round_id, region, pose, kind, rated_by) {
        round_id -> Text,
        region -> Text,
        pose -> Text,
        kind -> Text,
        first_value -> Integer,
        again_value -> Nullable<Integer>,
        rated_by -> Text,
        rated_at -> Text,
    }
}

diesel::table! {
    plan_draft (round_id) {
        round_id -> Text,
        week_json -> Text,
        revision -> Integer,
        saved_by -> Text,
    }
}

diesel::table! {
    issued_plan (id) {
        id -> Text,
        client_id -> Text,
        round_id -> Text,
        version -> Integer,
        issued_on -> Text,
        starts_on -> Text,
        issued_by -> Text,
        week_json -> Text,
        plan_json -> Text,
        issued_by_id -> Nullable<Text>,
    }
}

diesel::table! {
    log_entry (arrival) {
        arrival -> BigInt,
        id -> Text,
        client_id -> Text,
        plan_id -> Text,
        week -> Integer,
        day -> Integer,
        part -> Text,
        trained_on -> Text,
        written_at -> Text,
        written_by -> Text,
        entry_json -> Text,
        superseded -> Bool,
        done -> Nullable<Text>,
        position -> Integer,
        hard_sets -> Integer,
        one_sided -> Bool,
        least_reps -> Nullable<Integer>,
        best_both -> Nullable<Double>,
        best_left -> Nullable<Double>,
        best_right -> Nullable<Double>,
        loaded -> Bool,
        alarm -> Integer,
        swung -> Bool,
    }
}

diesel::table! {
    target_overrule (client_id, exercise) {
        client_id -> Text,
        exercise -> Text,
        overrule_json -> Text,
        said_by -> Text,
        said_at -> Text,
    }
}

diesel::table! {
    client_link (id) {
        id -> Text,
        client_id -> Text,
        token_sha256 -> Text,
        made_by -> Text,
        made_on -> Text,
        expires_on -> Text,
        revoked_on -> Nullable<Text>,
        used_on -> Nullable<Text>,
        made_by_id -> Nullable<Text>,
    }
}

diesel::table! {
    review (round_id) {
        round_id -> Text,
        decisions_json -> Text,
        revision -> Integer,
        saved_by -> Text,
    }
}

diesel::table! {
    seen_to (client_id, what) {
        client_id -> Text,
        what -> Text,
        note -> Text,
        seen_by -> Text,
        seen_on -> Text,
    }
}

diesel::table! {
    client_stamp (client_id) {
        client_id -> Text,
        stamp -> BigInt,
        log_stamp -> BigInt,
    }
}

diesel::table! {
    eye_sitting (id) {
        id -> Text,
        account_id -> Text,
        seed -> BigInt,
        started_at -> Text,
    }
}

diesel::table! {
    eye_answer (sitting_id, place) {
        sitting_id -> Text,
        place -> Integer,
        figure -> Integer,
        kind -> Text,
        site -> Text,
        mirrored -> Bool,
        value -> Nullable<Integer>,
        truth -> Double,
        answered_at -> Text,
    }
}

diesel::table! {
    eye_beside_girths (account_id) {
        account_id -> Text,
        girths -> Integer,
        weight -> Double,
        variance -> Double,
    }
}

diesel::table! {
    deed (id) {
        id -> Integer,
        at -> Text,
        account_id -> Nullable<Text>,
        name -> Text,
        act -> Text,
        client_id -> Nullable<Text>,
    }
}

diesel::table! {
    recovery_code (account_id, code_sha256) {
        account_id -> Text,
        code_sha256 -> Text,
    }
}

diesel::table! {
    half_imported (client_id) {
        client_id -> Text,
    }
}

diesel::joinable!(round -> client (client_id));
diesel::joinable!(photo -> round (round_id));
diesel::joinable!(outline -> round (round_id));
diesel::joinable!(picture_girth -> round (round_id));
diesel::joinable!(rating -> round (round_id));
diesel::joinable!(rating_repeat -> round (round_id));
diesel::allow_tables_to_appear_in_same_query!(client, round, photo, outline, picture_girth, rating, rating_repeat);
diesel::allow_tables_to_appear_in_same_query!(client, issued_plan);
diesel::joinable!(eye_answer -> eye_sitting (sitting_id));
diesel::allow_tables_to_appear_in_same_query!(eye_sitting, eye_answer);
diesel::allow_tables_to_appear_in_same_query!(rating, tape_reading);
diesel::allow_tables_to_appear_in_same_query!(client, deed);
