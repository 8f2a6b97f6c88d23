<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import Shown from '../../parts/Shown.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { say } from '../../state/words';

    /* The record under the cursor, beside its list. */
    let { record }: { record: Resources['RecordResource'] } = $props();
    const type = $derived(session.type(record.type));
    const facts = $derived(
        type.fields
            .filter(
                (field) =>
                    !field.system &&
                    field.name !== type.title &&
                    field.type !== 'long_text' &&
                    record.values[field.name] !== null &&
                    record.values[field.name] !== false,
            )
            .slice(0, 7),
    );
    const account = createQuery(() => ({
        queryKey: ['account', record.type, record.id],
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/account', { params: { path: { type: record.type, id: record.id } } })),
    }));
</script>

<div class="scroll p-6 pt-5">
    <h2 class="text-[17px]!"><a class="hover:text-iris" href="/records/{record.type}/{record.id}">{record.title}</a></h2>
    <p class="sub">{type.label} <span class="figures">{record.number}</span></p>
    <dl class="mt-4">
        {#each facts as field (field.name)}
            <div class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[13px]">
                <dt class="text-ink-2">{field.label}</dt>
                <dd class="min-w-0 truncate font-medium"><Shown {record} {field} /></dd>
            </div>
        {/each}
    </dl>
    <h2 class="mt-6 mb-1">History</h2>
    {#each account.data?.ahead ?? [] as line (line.id)}
        <div class="pencilled grid grid-cols-[84px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px]">
            <span class="figures text-[11px]">{line.due ? moment(line.due) : say('waits')}</span><span><b>{line.lead}</b> {line.title}</span
            >
        </div>
    {/each}
    <div class="bg-iris px-2 text-[11px] leading-5 font-semibold text-on-iris">Now</div>
    {#each (account.data?.entries ?? []).slice(0, 7) as entry (entry.number)}
        {@const head = entry.head}
        <div class="grid grid-cols-[84px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px]">
            <span class="figures text-[11px] text-ink-2">{moment(entry.at)}</span><span
                ><b class="font-semibold">{head.strong}</b> {head.rest}</span
            >
        </div>
    {/each}
</div>
