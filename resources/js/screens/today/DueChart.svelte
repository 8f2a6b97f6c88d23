<script lang="ts">
    import { language } from '../../state/language.svelte';
    import type { Resources } from '../../api/client';
    import { say } from '../../state/words';

    /* What is coming, two weeks ahead by kind; days off are hatched, and a day opens to its lines. */
    type Props = { title: string; days: Resources['DayResource'][]; chosen: string | null; onchoose: (date: string | null) => void };
    let { title, days, chosen, onchoose }: Props = $props();
    const kinds: [string, string, string][] = [
        ['escalation', say('escalations'), 'var(--madder)'],
        ['reminder', say('reminders'), 'var(--marigold)'],
        ['task', say('tasks'), 'var(--iris)'],
        ['message', say('messages'), 'var(--harbor)'],
        ['other', 'other lines', 'var(--ink-3)'],
    ];
    const count = (day: Resources['DayResource'], kind: string) => Number((day.kinds as Record<string, number>)[kind] ?? 0);
    const total = (day: Resources['DayResource']) => kinds.reduce((sum, [kind]) => sum + count(day, kind), 0);
    const most = $derived(Math.max(4, ...days.map(total)));
    const shown = $derived(kinds.filter(([kind]) => days.some((day) => count(day, kind) > 0)));
    const name = (date: string) =>
        new Intl.DateTimeFormat(language.tag, { weekday: 'short', timeZone: 'UTC' }).format(new Date(`${date}T00:00:00Z`)).slice(0, 2);
    const told = (day: Resources['DayResource']) =>
        [day.note, ...kinds.filter(([kind]) => count(day, kind)).map(([kind, label]) => `${count(day, kind)} ${label}`)]
            .filter(Boolean)
            .join(', ') || 'nothing pencilled in';
</script>

<figure aria-label={title}>
    <h2 class="mb-2 text-[13px]!">{title}</h2>
    <div class="grid h-[118px] items-end gap-[6px] border-b border-ink" style:grid-template-columns="repeat({days.length}, minmax(0, 1fr))">
        {#each days as day (day.date)}
            <button
                type="button"
                class="flex h-full flex-col justify-end gap-[2px] rounded-t-[3px] {chosen === day.date ? 'bg-iris-wash' : 'hover:bg-lit'}"
                style:background-image={day.free ? 'repeating-linear-gradient(135deg, transparent 0 4px, var(--ruled) 4px 5px)' : undefined}
                title="{day.date}: {told(day)}"
                aria-label="{day.date}: {told(day)}"
                aria-pressed={chosen === day.date}
                onclick={() => onchoose(chosen === day.date ? null : day.date)}
            >
                {#each kinds as [kind, , colour] (kind)}
                    {#if count(day, kind)}<span
                            class="w-full rounded-[2px]"
                            style:background={colour}
                            style:height="{Math.max(3, (count(day, kind) / most) * 100)}px"
                        ></span>{/if}
                {/each}
            </button>
        {/each}
    </div>
    <div class="figures grid gap-[6px] pt-1 text-[10.5px] text-ink-2" style:grid-template-columns="repeat({days.length}, minmax(0, 1fr))">
        {#each days as day, index (day.date)}
            <span class="text-center {index === 0 || chosen === day.date ? 'font-medium text-iris' : ''}"
                >{name(day.date)} {day.free && !day.note ? '' : Number(day.date.slice(8))}</span
            >
        {/each}
    </div>
    <figcaption class="mini mt-1.5 flex items-center gap-4">
        {#each shown.toReversed() as [kind, label, colour] (kind)}
            <span class="flex items-center gap-1.5"
                ><span class="inline-block h-2 w-2 rounded-[2px]" style:background={colour}></span>{label}</span
            >
        {:else}Nothing is pencilled in.{/each}
    </figcaption>
</figure>
