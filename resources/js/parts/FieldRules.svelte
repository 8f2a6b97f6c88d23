<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../api/client';
    import Floating from './Floating.svelte';

    type Props = { type: string; field: Resources['FieldResource']; anchor: HTMLElement; onclose: () => void };
    let { type, field, anchor, onclose }: Props = $props();
    const rules = createQuery(() => ({
        queryKey: ['rules', 'field', type, field.name],
        queryFn: () => ask(api.GET('/api/schema/{type}/fields/{field}/rules', { params: { path: { type, field: field.name } } })),
    }));
</script>

<Floating {anchor} label="Rules that can change {field.label}" {onclose}>
    <div class="w-[340px] py-2">
        <p class="px-4 pb-1 text-[12.5px] font-semibold">Rules in force that can change {field.label}</p>
        {#each rules.data ?? [] as found, index (index)}
            <a class="option block!" href="/rules/{found.rule}"
                ><span class="link">{found.name}</span><br /><span class="mini">{found.line}</span></a
            >
        {:else}
            <p class="mini px-4 py-1">{rules.data ? 'No rule in force changes it.' : '…'}</p>
        {/each}
    </div>
</Floating>
