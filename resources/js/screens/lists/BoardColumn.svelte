<script lang="ts">
    import { dropped } from '../../parts/dropped';
    import { inFigures } from '../../state/numbers';
    import { untrack } from 'svelte';
    import type { Resources } from '../../api/client';
    import { go } from '../../router';
    import { dueDate, lasted } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import type { Arrangement } from './arrangement.svelte';
    import { ofGroup, rowsIn } from './groups';

    type Row = Resources['RecordResource'];
    type Props = {
        type: Resources['TypeResource'];
        stage: string;
        choice: Resources['ChoiceResource'];
        arrangement: Arrangement;
        group: Resources['GroupResource'] | undefined;
        selected: number | null;
        carried: Row | null;
        onselect: (row: Row) => void;
        oncarry: (row: Row | null) => void;
        ondrop: () => void;
        onshift: (row: Row, by: number) => void;
    };
    let { type, stage, choice, arrangement, group, selected, carried, onselect, oncarry, ondrop, onshift }: Props = $props();
    const AT_FIRST = 25;
    let shown = $state(AT_FIRST);
    let over = $state(false);
    const condition = $derived(arrangement.condition(ofGroup(stage, { value: choice.value, key: choice.value })));
    const list = rowsIn(() => ({ type: type.name, condition, arrangement, most: shown }));
    const rows = $derived(list.data?.rows ?? []);
    // What stands beside the list is the record as it was read last.
    $effect(() => {
        const fresh = rows.find((row) => row.id === selected);
        if (fresh) untrack(() => onselect(fresh));
    });
    const count = $derived(group?.count ?? 0);
    /** What a card says besides its title: the first columns of the list that are something. */
    const facts = $derived(
        type.columns
            .filter((name) => name !== type.title && name !== stage)
            .flatMap((name) => type.fields.find((field) => field.name === name) ?? []),
    );
    const margin = $derived(facts[0]?.type === 'date' ? facts[0] : null);

    function key(event: KeyboardEvent, row: Row) {
        if (event.key === 'Enter') go(`/records/${type.name}/${row.id}`);
        else if (event.key === 'ArrowRight' && event.altKey) onshift(row, 1);
        else if (event.key === 'ArrowLeft' && event.altKey) onshift(row, -1);
        else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            const next = event.key === 'ArrowDown' ? 'nextElementSibling' : 'previousElementSibling';
            ((event.currentTarget as HTMLElement)[next] as HTMLElement | null)?.focus();
        } else return;
        event.preventDefault();
        event.stopPropagation();
    }
</script>

<section
    class="board-column {over && carried ? 'over' : ''}"
    role="listitem"
    aria-label={choice.label}
    {...dropped((is) => (over = is), ondrop)}
>
    <h3>
        <span class={choice.tone ? `tone-${choice.tone}` : ''}>{choice.label}</span>
        <span class="figures mini">{inFigures(count)}</span>
    </h3>
    {#if Object.keys(group?.sums ?? {}).length}<p class="figures mini px-3 pb-1.5">{Object.values(group?.sums ?? {}).join(' · ')}</p>{/if}
    <div class="scroll">
        {#each rows as row (row.id)}
            {@const due = margin && row.values[margin.name] ? dueDate(String(row.values[margin.name])) : null}
            <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
            <article
                class="board-card {selected === row.id ? 'on' : ''}"
                tabindex="0"
                aria-label="{row.title}, {row.number}"
                draggable={row.may.includes('change')}
                ondragstart={() => oncarry(row)}
                ondragend={() => oncarry(null)}
                onfocus={() => onselect(row)}
                onkeydown={(event) => key(event, row)}
            >
                <a class="font-medium hover:text-iris" href="/records/{type.name}/{row.id}" tabindex="-1">{row.title}</a>
                <div class="mini flex flex-wrap gap-x-2">
                    <span class="figures">{row.number}</span>
                    {#each facts.filter((field) => field !== margin && row.shown[field.name]).slice(0, 3) as field (field.name)}<span
                            class="max-w-full truncate">{row.shown[field.name]}</span
                        >{/each}
                </div>
                <div class="mini flex justify-between">
                    <span class="figures {choice.closes ? '' : `tone-${due?.tone}`}">{due && !choice.closes ? due.text : ''}</span>
                    <span class="figures">{row.stageSince ? lasted((clock.now.getTime() - Date.parse(row.stageSince)) / 1000) : ''}</span>
                </div>
            </article>
        {:else}<p class="mini px-2 py-3">{list.data ? 'Nothing here.' : ''}</p>{/each}
        {#if rows.length < count && rows.length > 0}<button
                type="button"
                class="link px-2 py-1 text-[12px]"
                onclick={() => (shown = Math.min(200, shown * 2))}>{inFigures(count - rows.length)} more</button
            >{/if}
    </div>
</section>
