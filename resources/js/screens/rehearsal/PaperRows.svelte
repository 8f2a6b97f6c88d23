<script lang="ts">
    import { moment } from '../../state/moments';
    import { paperRows } from './paper';
    import type { Played } from './rehearsal.svelte';

    let { played, at }: { played: Played; at: number } = $props();
    const rows = $derived(paperRows(played));
    const SUPPOSED: Record<string, string> = { reply: 'A reply arrives', comment: 'Somebody comments', task_done: 'The task is done' };
    let open = $state<Record<number, boolean>>({});
</script>

<div class="mt-3" role="list" aria-label="The rule’s life">
    {#each rows as row (row.key)}
        <div
            class="paper {row.line ? 'cut' : ''} {row.at === null || row.at > at ? 'ahead' : ''}"
            role="listitem"
            data-paper={row.entry?.entry.kind ?? (row.line?.because ? 'struck' : 'left')}
        >
            <div class="m">{row.at === null ? 'no date' : moment(new Date(row.at))}</div>
            <div class="min-w-0">
                {#if row.line}
                    <span class={row.line.because ? 'struck' : ''}>{row.line.said || 'A line'}</span>
                    {#if !row.line.own && row.line.ruleName}<span class="mini"> {row.line.ruleName}</span>{/if}
                    <small>{row.line.because ? `struck out: ${row.line.because}` : 'still pencilled in'}</small>
                {:else if row.entry}
                    {@const one = row.entry}
                    {@const done = one.entry.outcomes}
                    {#if one.whatIf}
                        <b class="text-iris">{SUPPOSED[one.entry.kind] ?? 'Fields change'}</b>
                        <span class="mini">your what-if</span>
                        {#if one.entry.detail}<small>{one.entry.detail}</small>{/if}
                    {:else if done.length}
                        {#if !one.own}<small>{one.entry.ruleName}, in turn</small>{/if}
                        {#each done as outcome, index (index)}<div>
                                {#if outcome.kind === 'set' && outcome.changed}
                                    <b class="font-semibold">{outcome.label}</b>{outcome.on ? ` on ${outcome.on}` : ''}:
                                    {outcome.before} → {outcome.after}
                                {:else}
                                    {outcome.said}
                                    {#if outcome.path}<span class="mini">· {outcome.path}</span>{/if}
                                {/if}
                            </div>{/each}
                    {:else}
                        <b class="font-semibold">{one.entry.head.strong}</b>
                        {one.entry.head.rest}
                        {#if one.entry.detail}<small class="whitespace-pre-line">{one.entry.detail}</small>{/if}
                    {/if}
                    {#each one.messages as message, index (index)}
                        <button
                            type="button"
                            class="letter {open[one.entry.number] ? '' : 'folded'}"
                            aria-expanded={open[one.entry.number] ?? false}
                            title="Read it as it would be read"
                            onclick={() => (open[one.entry.number] = !open[one.entry.number])}>“{message.text.trim()}”</button
                        >
                    {/each}
                {/if}
            </div>
        </div>
    {:else}
        <p class="mini py-3">Nothing happens.</p>
    {/each}
</div>
