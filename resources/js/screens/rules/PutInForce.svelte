<script lang="ts">
    import { inFigures } from '../../state/numbers';
    import { Checkbox, Input, Radio } from 'flowbite-svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { counted, countedOf } from '../../state/words';

    type Props = {
        rule: Resources['RuleResource'];
        version: number;
        page: number;
        onclose: () => void;
        ondone: (rule: Resources['RuleResource']) => void;
    };
    let { rule, version, page, onclose, ondone }: Props = $props();
    const type = $derived(session.type(rule.on));
    const numbers = createQuery(() => ({
        queryKey: ['matching', rule.id, version],
        queryFn: () => ask(api.GET('/api/rules/{id}/matching', { params: { path: { id: rule.id } } })),
    }));
    const moving = createQuery(() => ({
        queryKey: ['moving', rule.id, version],
        enabled: rule.inPlay > 0,
        queryFn: () => ask(api.GET('/api/rules/{id}/moving', { params: { path: { id: rule.id } } })),
    }));
    let busy = $state(false);
    let existing = $state<'leave' | 'count' | 'start'>('leave');
    let hours = $state(4);
    let move = $state(false);
    let why = $state('');
    const records = (count: number) => countedOf(count, type);
    const those = $derived(numbers.data ? records(numbers.data.matching) : '');
    const ways = $derived([
        { key: 'leave' as const, label: 'Leave them', hint: 'The rule starts with what happens from now on.' },
        { key: 'count' as const, label: 'Count them as done', hint: 'The repeat guard takes it that the rule has fired for them.' },
        {
            key: 'start' as const,
            label: 'Start it for them',
            hint: 'One after the other, spread over some hours, so that nobody is flooded.',
        },
    ]);

    async function publish() {
        busy = true;
        try {
            const body = { version, existing, hours, move, why };
            ondone(await ask(api.POST('/api/rules/{id}/publish', { params: { path: { id: rule.id } }, body })));
            toasts.tell(
                existing === 'start' && numbers.data?.starting
                    ? `Page ${page} is in force, and starts for ${records(numbers.data.starting)}.`
                    : `Page ${page} is in force.`,
            );
        } catch (thrown) {
            toasts.complain(said(thrown));
            onclose();
        }
        busy = false;
    }
</script>

<Confirm title="Put page {page} in force?" go="Put in force" {busy} onconfirm={publish} {onclose}>
    {#if numbers.data}
        <p>
            The conditions hold now for <b class="text-ink">{those}</b> of {inFigures(numbers.data.total)}{numbers.data.matching
                ? ':'
                : '.'}
            {#if numbers.data.matching}
                <span class="mini">
                    {numbers.data.examples
                        .slice(0, 3)
                        .map((example) => example.number)
                        .join(', ')}{numbers.data.matching > 3 ? ' and more' : ''}</span
                >
            {/if}
        </p>
        {#if numbers.data.waiting}
            <p class="callout" data-waiting>
                {#if numbers.data.starting}
                    Past the moment already, and to be started or counted: <b class="text-ink">{records(numbers.data.starting)}</b>. Still
                    waiting for the day: <b class="text-ink">{numbers.data.waiting}</b>.
                {:else}
                    None of them is past the moment yet: {counted(numbers.data.waiting, [
                        'it waits for the day.',
                        'all of them wait for the day.',
                    ])}
                {/if}
            </p>
        {/if}
        {#if numbers.data.starting}
            <fieldset class="space-y-2">
                <legend class="sr-only">What happens to those that match already</legend>
                {#each ways as way (way.key)}
                    <Radio
                        name="existing"
                        value={way.key}
                        bind:group={existing}
                        class="mt-1"
                        classes={{
                            label: `items-start gap-2.5 rounded-lg border border-edge p-2.5 ${existing === way.key ? 'bg-iris-wash' : ''}`,
                        }}
                    >
                        <span
                            ><b class="font-semibold text-ink">{way.label}</b><br /><span class="text-[12.5px]">{way.hint}</span>
                            {#if way.key === 'start' && existing === 'start'}
                                <span class="mt-1.5 flex items-center gap-2 text-[12.5px]"
                                    >over <Input class="w-16!" type="number" min="0" max="720" aria-label="Hours" bind:value={hours} />
                                    hours:
                                    {hours > 0
                                        ? `about ${Math.max(1, Math.round(numbers.data.starting / hours))} an hour`
                                        : 'all at once'}</span
                                >
                            {/if}</span
                        >
                    </Radio>
                {/each}
            </fieldset>
        {/if}
        {#if rule.inPlay > 0 && moving.data}
            <div class="border-t border-ruled pt-3">
                <label class="flex items-start gap-2.5"
                    ><Checkbox class="mt-1" bind:checked={move} />
                    <span
                        ><b class="font-semibold text-ink">Move what is in play on {countedOf(rule.inPlay, type)} to this page</b><br
                        /><span class="text-[12.5px]"
                            >Pencilled lines: {moving.data.moved} at another time, {moving.data.struck} struck out,
                            {moving.data.added} new. Otherwise they end on the page they began with.</span
                        ></span
                    ></label
                >
            </div>
        {/if}
    {:else}
        <p>{numbers.isError ? said(numbers.error) : 'Counting…'}</p>
    {/if}
    <Input aria-label="Why" placeholder="Why? (kept with the page)" maxlength={200} bind:value={why} />
</Confirm>
