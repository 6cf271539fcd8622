package yalos.core.network;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.assertj.core.data.Offset;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import org.junit.jupiter.api.Test;

/** The kept places of an inverse against the whole one of the linear algebra library. */
class SkylineTest {
    @Test
    void theInverseIsRightWhereItIsKept() {
        Random random = new Random(5);
        for (int round = 0; round < 20; round++) {
            int size = 3 + random.nextInt(40);
            int[] first = new int[size];
            for (int i = 0; i < size; i++) {
                first[i] = i > size - 3 ? 0 : Math.max(0, i - random.nextInt(8));
            }
            Skyline skyline = new Skyline(first).laid();
            DMatrixRMaj whole = new DMatrixRMaj(size, size);
            for (int row = 0; row < size; row++) {
                for (int column = first[row]; column <= row; column++) {
                    double value = row == column ? 20 + random.nextDouble() : random.nextDouble() - 0.5;
                    skyline.add(row, column, value);
                    whole.set(row, column, value);
                    whole.set(column, row, value);
                }
            }
            DMatrixRMaj expected = new DMatrixRMaj(size, size);
            assertThat(CommonOps_DDRM.invert(whole, expected)).isTrue();
            Skyline inverse = skyline.inverse().orElseThrow();
            for (int row = 0; row < size; row++) {
                for (int column = first[row]; column <= row; column++) {
                    assertThat(inverse.get(row, column)).isCloseTo(expected.get(row, column), Offset.offset(1e-12));
                    assertThat(inverse.get(column, row)).isEqualTo(inverse.get(row, column));
                }
            }
        }
    }

    @Test
    void whatIsNotPositiveHasNone() {
        Skyline skyline = new Skyline(new int[] {0, 0}).laid();
        skyline.add(0, 0, 1);
        skyline.add(1, 1, 1);
        skyline.add(1, 0, 2);
        assertThat(skyline.inverse()).isEmpty();
    }
}
