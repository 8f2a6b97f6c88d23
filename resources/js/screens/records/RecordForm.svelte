<script lang="ts">
    import { isChangeable } from '../../state/changeable';
    import { tick, untrack } from 'svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import FieldInput from './FieldInput.svelte';
    import Likely from './Likely.svelte';
    import { inSections } from './sections';
    import { within } from '../../state/words';

    type Value = string | number | boolean | null;
    type Props = {
        type: Resources['TypeResource'];
        record: Resources['RecordResource'] | null;
        onsaved: (answer: Resources['SavedResource'], given: string[]) => void;
        oncancel: () => void;
        onreload?: () => void;
        /** What a new record begins with, besides what its fields begin with. */
        preset?: Record<string, Value>;
        presetShown?: Record<string, string>;
    };
    let { type, record, onsaved, oncancel, onreload, preset = {}, presetShown = {} }: Props = $props();

    const fields = $derived(type.fields.filter(isChangeable));
    const before = untrack(() => record);
    /** What a new record is asked: its name first, then the rest in its order; what rules fill in waits below. */
    const isKept = (field: Resources['FieldResource']) =>
        type.kept.includes(field.name) && !field.required && !type.columns.includes(field.name) && field.name !== type.title;
    const inOrder = $derived([...fields].sort((one, other) => Number(other.name === type.title) - Number(one.name === type.title)));
    const asked = $derived(before ? inOrder : inOrder.filter((field) => !isKept(field)));
    const kept = $derived(before ? [] : inOrder.filter(isKept));
    let values = $state<Record<string, Value>>(
        untrack(() =>
            before ? { ...before.values } : Object.fromEntries(fields.map((field) => [field.name, preset[field.name] ?? start(field)])),
        ),
    );
    let version = $state(before?.version ?? 0);
    let refusal = $state<Refusal | null>(null);
    let busy = $state(false);
    let form = $state<HTMLFormElement>();
    const given = $derived(fields.map((field) => field.name).filter((name) => before === null || values[name] !== before.values[name]));
    type Since = { at: string; who: string; changes: Resources['ChangeResource'][] }[];
    const since = $derived((refusal?.problem.since as Since | undefined) ?? []);

    function start(field: Resources['FieldResource']): Value {
        if (field.default !== null) return field.default;
        if (field.type === 'tick') return false;
        if (!field.required || field.type !== 'choice') return null;
        const offered = field.choices.filter((choice) => !choice.isRetired);
        return (offered.find((choice) => choice.value === 'normal') ?? offered[0])?.value ?? null;
    }

    async function save() {
        if (busy) return;
        busy = true;
        refusal = null;
        const changes = Object.fromEntries(
            given.filter((name) => before !== null || values[name] !== null).map((name) => [name, values[name] ?? null]),
        );
        try {
            const answer = before
                ? await ask(
                      api.PATCH('/api/records/{type}/{id}', {
                          params: { path: { type: type.name, id: before.id } },
                          body: { version, values: changes },
                      }),
                  )
                : await ask(api.POST('/api/records/{type}', { params: { path: { type: type.name } }, body: { values: changes } }));
            onsaved(answer, given);
        } catch (thrown) {
            if (thrown instanceof Refusal) {
                refusal = thrown;
                await tick();
                (form?.querySelector('[aria-invalid=true], .bad') as HTMLElement | null)?.focus();
            } else toasts.complain(said(thrown));
        }
        busy = false;
    }

    /** The person has seen what the other one changed, and keeps what they typed. */
    function keepMine() {
        version = Number(refusal?.problem.version);
        void save();
    }

    function key(event: KeyboardEvent) {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void save();
        else if (event.key === 'Escape') oncancel();
        else return;
        event.preventDefault();
    }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form
    bind:this={form}
    class="flex min-h-0 flex-1 flex-col"
    onkeydown={key}
    onsubmit={(event) => {
        event.preventDefault();
        void save();
    }}
    novalidate
>
    <header class="border-b border-ruled px-7 pt-[18px] pb-3">
        <h1>{before ? before.title : `New ${within(type.label)}`}</h1>
        <p class="sub">{before ? `${type.label} ${before.number}` : 'Rules answer as soon as it is saved.'}</p>
    </header>
    <div class="scroll px-7 py-3">
        {#if refusal?.problem.code === 'stale_version'}
            <div class="callout bad mb-3" role="alert">
                <b>{refusal.message}</b>
                {#each since as change, index (index)}
                    <div class="mt-1">
                        <span class="figures mini">{moment(change.at)}</span>
                        {change.who}:
                        {change.changes.map((one) => `${one.label} ${one.before} → ${one.after}`).join(', ')}
                    </div>
                {/each}
                <div class="mt-2 flex gap-2">
                    <button type="button" class="btn" onclick={keepMine}>Save mine over it</button>
                    <button
                        type="button"
                        class="btn quiet"
                        onclick={() => {
                            onreload?.();
                            oncancel();
                        }}>Show theirs</button
                    >
                </div>
            </div>
        {:else if refusal && refusal.problem.problems.length === 0}
            <div class="callout bad mb-3" role="alert">{refusal.message}</div>
        {/if}
        <div class={before ? '' : 'grid max-w-4xl grid-cols-1 gap-x-10 min-[900px]:grid-cols-2'}>
            {#each inSections(asked) as [section, of] (section)}
                {#if section}<h2 class="mt-4 mb-1 {before ? '' : 'col-span-2'}">{section}</h2>{/if}
                {#each of as field (field.name)}
                    <FieldInput
                        {field}
                        bind:value={values[field.name]}
                        shown={before?.shown[field.name] ?? presetShown[field.name] ?? ''}
                        problem={refusal?.at(`/values/${field.name}`)}
                    />
                {/each}
            {/each}
        </div>
        {#if !before}<Likely {type} title={String(values[type.title] ?? '')} />{/if}
        {#if kept.length}
            <details class="mt-5 max-w-4xl">
                <summary class="cursor-pointer text-[13px] text-ink-2"
                    >Filled in by rules: {kept.map((field) => field.label).join(', ')}</summary
                >
                <div class="mt-2 grid grid-cols-1 gap-x-10 min-[900px]:grid-cols-2">
                    {#each kept as field (field.name)}
                        <FieldInput {field} bind:value={values[field.name]} shown="" problem={refusal?.at(`/values/${field.name}`)} />
                    {/each}
                </div>
            </details>
        {/if}
    </div>
    <footer class="flex items-center gap-2 border-t border-ruled px-7 py-3">
        <button class="btn go" disabled={busy}>{busy ? 'Saving…' : 'Save'}</button>
        <button type="button" class="btn" onclick={oncancel}>Cancel</button>
        <span class="keys ml-auto border-0! bg-transparent! p-0!"
            ><span><kbd>Ctrl Enter</kbd>save</span><span><kbd>Esc</kbd>cancel</span></span
        >
    </footer>
</form>
