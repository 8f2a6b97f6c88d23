<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said, type Shapes } from '../../api/client';
    import Area from '../../parts/fields/Area.svelte';

    let { type, id, may }: { type: Shapes['TypeShape']; id: number; may: boolean } = $props();
    const client = useQueryClient();
    let text = $state('');
    let problem = $state('');
    let busy = $state(false);

    async function write() {
        if (busy || text.trim() === '') return;
        busy = true;
        problem = '';
        try {
            await ask(api.POST('/api/records/{type}/{id}/comments', { params: { path: { type: type.name, id } }, body: { text } }));
            text = '';
            void client.invalidateQueries();
        } catch (thrown) {
            problem = thrown instanceof Refusal ? thrown.message : said(thrown);
        }
        busy = false;
    }
</script>

{#if may}
    <form
        class="border-b border-ruled px-6 py-2.5"
        onsubmit={(event) => {
            event.preventDefault();
            void write();
        }}
    >
        <div class="flex items-start gap-2">
            <Area
                class="h-9 min-h-9 flex-1 resize-none focus:h-20"
                aria-label="Comment"
                placeholder="Write a comment"
                maxlength={5000}
                bind:value={text}
                onkeydown={(event) => {
                    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
                        event.preventDefault();
                        void write();
                    }
                }}
            />
            {#if text.trim()}<button class="btn" disabled={busy} title="Ctrl Enter">Comment</button>{/if}
        </div>
        {#if problem}<p class="note-wrong" role="alert">{problem}</p>{/if}
    </form>
{/if}
