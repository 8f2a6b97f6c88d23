<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { findRecords } from '../../api/records';
    import Choose from '../../parts/Choose.svelte';
    import Floating from '../../parts/Floating.svelte';
    import VerdictCard from '../../parts/VerdictCard.svelte';
    import { fromLocalField, moment, toLocalField } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import DateField from '../../parts/fields/DateField.svelte';

    let { rule }: { rule: Resources['RuleResource'] } = $props();
    let anchor = $state<HTMLElement | null>(null);
    let typed = $state('');
    const records = createQuery(() => ({
        queryKey: ['offer', rule.on, typed],
        enabled: anchor !== null,
        queryFn: () => findRecords(rule.on, typed),
        placeholderData: (before) => before,
    }));
    const found = $derived(records.data ?? []);
    let record = $state.raw<Resources['RecordResource'] | null>(null);
    // The minute that has begun counts as well.
    let at = $state(toLocalField(new Date(clock.now.getTime() + 60_000).toISOString()));
    let answer = $state.raw<Resources['MomentAnswers'] | null>(null);
    let trouble = $state('');

    function open(event: Event) {
        anchor = event.currentTarget as HTMLElement;
        typed = '';
    }

    $effect(() => {
        const about = record;
        if (!about || !at) return;
        let current = true;
        const query = { at: fromLocalField(at), rule: rule.id };
        void ask(api.GET('/api/records/{type}/{id}/why', { params: { path: { type: rule.on, id: about.id }, query } }))
            .then((found_) => current && ((answer = found_), (trouble = '')))
            .catch((thrown) => current && ((answer = null), (trouble = said(thrown))));
        return () => (current = false);
    });
    const verdict = $derived(answer?.answers[0]?.verdict);
</script>

<div class="border-b border-ruled px-6 py-3 text-[13px]" data-ask-why>
    Why did it, or did it not, fire on
    <button type="button" class="word field" onclick={open}>{record ? record.number : 'a record'}</button>
    {#if record}
        by <DateField time class="w-[210px]" label="Moment" bind:value={at} />
        {#if trouble}<p class="mt-2 text-ink-2">{trouble}</p>{/if}
        {#if answer}
            <p class="mt-2">
                <a class="link" href="/ledger/{answer.entry.number}">Entry {answer.entry.number}</a>, {moment(answer.entry.at)}:
                {verdict ? verdict.sentence : 'the rule was not in force then, or had nothing to do with it.'}
            </p>
            {#if verdict}<div class="mt-1 rounded-md border border-ruled bg-raised px-3 py-2"><VerdictCard {verdict} /></div>{/if}
        {/if}
    {/if}
</div>
{#if anchor}
    <Floating {anchor} label="Record" onclose={() => (anchor = null)}>
        <Choose
            title="Record"
            options={found.map((one) => ({ key: String(one.id), label: one.title, hint: one.number }))}
            onsearch={(text) => (typed = text)}
            onchoose={([key]) => {
                record = found.find((one) => String(one.id) === key) ?? null;
                anchor = null;
            }}
            onclose={() => (anchor = null)}
        />
    </Floating>
{/if}
