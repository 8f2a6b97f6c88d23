<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import type { Document } from '../../state/document.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import type { Rehearsal } from './rehearsal.svelte';

    let { rule, page, rehearsal, onclose }: { rule: Resources['RuleResource']; page: Document; rehearsal: Rehearsal; onclose: () => void } =
        $props();
    const queries = useQueryClient();
    const played = $derived(rehearsal.played);
    // svelte-ignore state_referenced_locally
    let name = $state(
        [played?.openingSaid ?? '', ...(played?.whatIfs ?? []).map((whatIf) => `what if ${whatIf}`)]
            .filter(Boolean)
            .join('; ')
            .slice(0, 120),
    );

    async function keep(event: SubmitEvent) {
        event.preventDefault();
        if (!played) return;
        try {
            const body = { name, file: page.file, ...rehearsal.script, opening: played.opening } as never;
            queries.setQueryData(
                ['proofs', rule.id],
                await ask(api.POST('/api/rules/{id}/proofs', { params: { path: { id: rule.id } }, body })),
            );
            page.tried = await ask(
                api.POST('/api/rules/{id}/proofs/try', { params: { path: { id: rule.id } }, body: { file: page.file } }),
            );
            toasts.tell('Kept as a proof. It is played again at every edit.');
            onclose();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<form class="w-[360px]" onsubmit={keep}>
    <label class="block px-4 pt-3 text-[12.5px] text-ink-2" for="proof">What this proof shows</label>
    <div class="px-4 pt-1 pb-3"><Input id="proof" maxlength={120} required bind:value={name} /></div>
    <p class="mini px-4 pb-3">
        It keeps the record, what happens and what came of it, and is played again whenever this rule or another changes.
    </p>
    <div class="keys">
        <span><kbd>Enter</kbd>keep</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Keep the proof</button>
    </div>
</form>
