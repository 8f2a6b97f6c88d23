<script lang="ts">
    import { api, ask } from '../api/client';
    import type { Document } from '../state/document.svelte';
    import type { JsonObject } from '../state/pointer';
    import { session } from '../state/session.svelte';
    import Say from './Say.svelte';
    import { within } from '../state/words';

    /** The first thing on the page of a new rule: the whole of it in one sentence. */
    let { page }: { page: Document } = $props();
    const one = $derived(within(session.type(page.type).label));

    const NAME_LENGTH = 60;

    /** What was said, as far as whole words fit into a name: a rule without a name is hard to find again. */
    function shortened(said: string): string {
        return said.length <= NAME_LENGTH ? said : `${said.slice(0, NAME_LENGTH).replace(/[\s,;:]+\S*$/, '')} …`;
    }

    /** Each part goes to its place; what the sentence does not say stays as it is. */
    async function take(file: JsonObject, said: string) {
        await page.edit((rule) => void Object.assign(rule, file, rule.name ? {} : { name: shortened(said) }));
    }
</script>

<div class="mx-6 mt-4 mb-1 shrink-0 rounded-lg border border-edge bg-lit px-4 py-3">
    <p class="mb-1 text-[12px] font-semibold text-ink-3">Say it in one sentence</p>
    <Say
        label="The rule in one sentence"
        placeholder="When a {one} is created, remind the owner “Look at it” after 2 days, only once"
        read={(text) => ask(api.POST('/api/text/sentence', { body: { text, on: page.type } }))}
        {take}
        takes="fills the page"
        first
        class="text-[15px]"
    />
</div>
