<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../api/client';
    import { toasts } from '../state/toasts.svelte';
    import Choose from './Choose.svelte';
    import Confirm from './Confirm.svelte';
    import Floating from './Floating.svelte';
    import RunProgress from './RunProgress.svelte';
    import { countedOf } from '../state/words';

    /* "Run…": the rules meant to be run by hand, on one record or on a selection. */
    type Props = { type: Resources['TypeResource']; records: number[]; ondone?: () => void };
    let { type, records, ondone }: Props = $props();
    const client = useQueryClient();
    let choosing = $state<HTMLElement | null>(null);
    const rules = createQuery(() => ({
        queryKey: ['rules'],
        enabled: choosing !== null,
        queryFn: () => ask(api.GET('/api/rules')),
    }));
    const runnable = $derived((rules.data ?? []).filter((rule) => rule.byHand && rule.status === 'in_force' && rule.on === type.name));
    let asked = $state<Resources['RuleSummary'] | null>(null);
    let run = $state<Resources['RunResource'] | null>(null);
    let busy = $state(false);

    async function start() {
        if (!asked) return;
        busy = true;
        try {
            const started = await ask(
                api.POST('/api/rules/{id}/run', { params: { path: { id: asked.id } }, body: { recordType: type.name, records } }),
            );
            void client.invalidateQueries();
            if (records.length > 1) run = started;
            else {
                const result = started.results[0];
                toasts.tell(result?.result === 'fired' ? `${asked.name} fired.` : (result?.said ?? 'The rule did not fire.'));
            }
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
        asked = null;
    }
</script>

{#if type.byHand}
    <button type="button" class="btn" onclick={(event) => (choosing = choosing ? null : event.currentTarget)}>Run…</button>
{/if}

{#if choosing && rules.data}
    <Floating anchor={choosing} label="Run a rule" onclose={() => (choosing = null)}>
        <Choose
            title="Run"
            options={runnable.map((rule) => ({ key: String(rule.id), label: rule.name }))}
            onchoose={([key]) => {
                asked = runnable.find((rule) => String(rule.id) === key) ?? null;
                choosing = null;
            }}
            onclose={() => (choosing = null)}
        />
    </Floating>
{/if}
{#if asked}
    <Confirm
        title="Run “{asked.name}” on {countedOf(records.length, type)}?"
        go="Run it"
        {busy}
        onconfirm={start}
        onclose={() => (asked = null)}
    >
        <p>{asked.aloud}</p>
        <p>Its conditions and its repeat guard hold all the same.</p>
    </Confirm>
{/if}
{#if run}
    <RunProgress
        {run}
        onclose={() => {
            run = null;
            ondone?.();
        }}
    />
{/if}
