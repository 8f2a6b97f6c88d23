<script lang="ts">
    import type { Shapes } from '../../api/client';

    /* Tasks that fall due, two weeks ahead; weekends are hatched. */
    let { days }: { days: Shapes['DayShape'][] } = $props();
    const most = $derived(Math.max(4, ...days.map((day) => day.due)));
    const name = (date: string) =>
        new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' }).format(new Date(`${date}T00:00:00Z`)).slice(0, 2);
</script>

<figure aria-label="Tasks that fall due in the next 14 days">
    <div class="grid h-[108px] items-end gap-[6px] border-b border-ink" style:grid-template-columns="repeat({days.length}, minmax(0, 1fr))">
        {#each days as day (day.date)}
            <div
                class="flex h-full flex-col justify-end"
                style:background={day.weekend ? 'repeating-linear-gradient(135deg, transparent 0 4px, #ece5d6 4px 5px)' : undefined}
                title="{day.date}: {day.due} due"
            >
                {#if day.due}
                    <span class="figures mb-0.5 text-center text-[10px] text-ink-2">{day.due}</span>
                    <span class="rounded-t-[3px] bg-iris" style:height="{(day.due / most) * 84}px"></span>
                {/if}
            </div>
        {/each}
    </div>
    <div class="figures grid gap-[6px] pt-1 text-[10.5px] text-ink-2" style:grid-template-columns="repeat({days.length}, minmax(0, 1fr))">
        {#each days as day, index (day.date)}
            <span class="text-center {index === 0 ? 'font-medium text-iris' : ''}">{name(day.date)} {Number(day.date.slice(8))}</span>
        {/each}
    </div>
    <figcaption class="mini mt-1.5 flex items-center gap-1.5">
        <span class="inline-block h-2 w-2 rounded-[2px] bg-iris"></span>tasks that fall due, everyone’s
    </figcaption>
</figure>
