import { useQuery } from '@tanstack/vue-query';
import { onScopeDispose, ref } from 'vue';
import { api } from '@/api/client';

/** Names of the instruments that are attached to the installation. */
export function useInstruments() {
  return useQuery({
    queryKey: ['instruments'],
    queryFn: () => api.get('/api/v1/instruments'),
    staleTime: Infinity,
    retry: false,
  }).data;
}

/** An instrument that sends by itself while it is open; a connection that breaks is made again by the browser. */
export function useStream(event: string, heard: (data: string) => void) {
  const open = ref(false);
  const lost = ref(false);
  let source: EventSource | undefined;

  function close() {
    source?.close();
    source = undefined;
    open.value = false;
    lost.value = false;
  }

  function begin(address: string) {
    close();
    open.value = true;
    source = new EventSource(address);
    source.addEventListener(event, (message) => {
      lost.value = false;
      heard((message as MessageEvent<string>).data);
    });
    source.addEventListener('error', () => (lost.value = true));
  }

  onScopeDispose(close);
  return { open, lost, begin, close };
}
