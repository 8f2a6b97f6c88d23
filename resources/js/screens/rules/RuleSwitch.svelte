<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { toasts } from '../../state/toasts.svelte';

    /* Off and on: a rule that is off starts on nothing, and holds what it has pencilled in until it is on again. */
    type Props = {
        rule: { id: number; name: string; status: string };
        onchange?: (rule: Resources['RuleResource']) => void;
    };
    let { rule, onchange }: Props = $props();
    const client = useQueryClient();
    const isOn = $derived(rule.status === 'in_force');
    let busy = $state(false);

    async function turn() {
        busy = true;
        const status = isOn ? 'paused' : 'in_force';
        try {
            const turned = await ask(api.POST('/api/rules/{id}/status', { params: { path: { id: rule.id } }, body: { status } }));
            toasts.tell(
                status === 'paused'
                    ? `“${rule.name}” is off. What it has pencilled in is held until it is on again.`
                    : `“${rule.name}” is on again.`,
            );
            onchange?.(turned);
            await client.invalidateQueries({ queryKey: ['rules'] });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

{#if rule.status === 'in_force' || rule.status === 'paused'}
    <button
        type="button"
        role="switch"
        class="switch"
        aria-checked={isOn}
        aria-label="On: {rule.name}"
        title={isOn ? 'Turn it off' : 'Turn it on'}
        disabled={busy}
        onclick={turn}><span></span></button
    >
{/if}
