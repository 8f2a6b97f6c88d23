<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Shapes } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { counted } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    type Props = {
        rule: Shapes['RuleShape'];
        version: number;
        page: number;
        onclose: () => void;
        ondone: (rule: Shapes['RuleShape']) => void;
    };
    let { rule, version, page, onclose, ondone }: Props = $props();
    const type = $derived(session.type(rule.on));
    const numbers = createQuery(() => ({
        queryKey: ['matching', rule.id, version],
        queryFn: () => ask(api.GET('/api/rules/{id}/matching', { params: { path: { id: rule.id } } })),
    }));
    let busy = $state(false);

    async function publish() {
        busy = true;
        try {
            ondone(await ask(api.POST('/api/rules/{id}/publish', { params: { path: { id: rule.id } }, body: { version } })));
            toasts.tell(`Page ${page} is in force.`);
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
            <b class="text-ink">{counted(numbers.data.matching, type.label.toLowerCase(), type.plural.toLowerCase())}</b> of {numbers.data.total.toLocaleString(
                'en-GB',
            )}
            {numbers.data.matching === 1 ? 'meets' : 'meet'} the conditions now. They are left as they are: the rule starts with the next change.
        </p>
        {#if numbers.data.examples.length}
            <ul class="text-[12.5px]">
                {#each numbers.data.examples as example (example.id)}<li>
                        <span class="figures mini">{example.number}</span>
                        {example.title}
                    </li>{/each}
                {#if numbers.data.matching > numbers.data.examples.length}<li class="mini">
                        and {numbers.data.matching - numbers.data.examples.length} more
                    </li>{/if}
            </ul>
        {/if}
    {:else}
        <p>{numbers.isError ? said(numbers.error) : 'Counting…'}</p>
    {/if}
</Confirm>
