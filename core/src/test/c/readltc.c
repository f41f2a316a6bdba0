/* Reads Linear Time Code with libltc: samples of 16 bits from the input, a line for each frame that was found. */
#include <ltc.h>
#include <stdio.h>
#include <stdlib.h>

int main(int argc, char **argv) {
  LTCDecoder *decoder = ltc_decoder_create(atoi(argv[1]), 1024);
  short samples[1024];
  size_t count;
  ltc_off_t at = 0;
  while ((count = fread(samples, sizeof(short), 1024, stdin)) > 0) {
    LTCFrameExt frame;
    ltc_decoder_write_s16(decoder, samples, count, at);
    at += count;
    while (ltc_decoder_read(decoder, &frame)) {
      SMPTETimecode time;
      ltc_frame_to_time(&time, &frame.ltc, 0);
      printf("%02d:%02d:%02d%c%02d %lld %d %08lx\n", time.hours, time.mins, time.secs, frame.ltc.dfbit ? ';' : ':',
             time.frame, (long long)frame.off_start, frame.reverse, ltc_frame_get_user_bits(&frame.ltc));
    }
  }
  ltc_decoder_free(decoder);
  return 0;
}
